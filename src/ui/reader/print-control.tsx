'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';

/** Pages to print, and how many copies are left. */
export function PrintControl({
  pages,
  left,
  onPrint,
}: {
  readonly pages: number;
  readonly left: number | null;
  readonly onPrint: (from: number, to: number) => void;
}) {
  const [from, setFrom] = useState(1);
  const [to, setTo] = useState(pages);
  const whole = (text: string): number =>
    Math.max(1, Math.min(pages, Math.floor(Number(text)) || 1));
  return (
    <div className="stack loose">
      <h2>
        Print{left === null ? '' : ` · ${String(left)} more ${left === 1 ? 'copy' : 'copies'}`}
      </h2>
      <div className="row one-row">
        <TextField
          type="number"
          label="From page"
          value={from}
          onChange={(event) => {
            setFrom(whole(event.target.value));
          }}
        />
        <TextField
          type="number"
          label="To page"
          value={to}
          onChange={(event) => {
            setTo(whole(event.target.value));
          }}
        />
      </div>
      <Button
        disabled={to < from}
        onClick={() => {
          onPrint(from, to);
        }}
      >
        Make a marked copy
      </Button>
    </div>
  );
}

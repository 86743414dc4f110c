'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useWords } from '@/ui/words/use-words';

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
  const { say } = useWords();
  const [from, setFrom] = useState(1);
  const [to, setTo] = useState(pages);
  const whole = (text: string): number =>
    Math.max(1, Math.min(pages, Math.floor(Number(text)) || 1));
  return (
    <div className="stack loose">
      <h2>{left === null ? say('print.heading') : say('print.headingLeft', { count: left })}</h2>
      <div className="row one-row">
        <TextField
          type="number"
          label={say('print.from')}
          value={from}
          onChange={(event) => {
            setFrom(whole(event.target.value));
          }}
        />
        <TextField
          type="number"
          label={say('print.to')}
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
        {say('print.make')}
      </Button>
    </div>
  );
}

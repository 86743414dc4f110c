'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { MomentField } from '@/ui/time/moment-field';

/** The circumstances that are asked about; empty: whatever they are. */
export type Case = {
  readonly at: number | null;
  readonly network: string;
  readonly country: string;
  readonly device: 'kept' | 'visit' | '';
  readonly address: string;
};
export const NOW: Case = { at: null, network: '', country: '', device: '', address: '' };

const devices: readonly { readonly value: Case['device']; readonly words: string }[] = [
  { value: '', words: 'any device' },
  { value: 'kept', words: 'a remembered device' },
  { value: 'visit', words: 'one for a visit' },
];

/** The same question at another time, place or device, or about somebody else. */
export function WhatIf({
  asked,
  onAsk,
  others = true,
}: {
  readonly asked: Case;
  readonly onAsk: (asked: Case) => void;
  /** Whether it can be asked about somebody else, too. */
  readonly others?: boolean;
}) {
  const [open, setOpen] = useState(false);
  if (!open)
    return (
      <div className="row">
        <Button
          onClick={() => {
            setOpen(true);
          }}
        >
          Try another case
        </Button>
      </div>
    );
  const text = (name: 'network' | 'country' | 'address', label: string, placeholder: string) => (
    <TextField
      label={label}
      defaultValue={asked[name]}
      placeholder={placeholder}
      // Asked when the field is left, and not at every letter.
      onBlur={({ target }) => {
        if (target.value !== asked[name]) onAsk({ ...asked, [name]: target.value });
      }}
    />
  );
  return (
    <>
      <h2>Another case</h2>
      <div className="stack loose above-6">
        <MomentField
          label="At"
          value={asked.at}
          onChange={(at) => {
            onAsk({ ...asked, at });
          }}
          none="Now"
        />
        <TextField
          select
          label="On"
          value={asked.device}
          onChange={({ target }) => {
            onAsk({ ...asked, device: target.value as Case['device'] });
          }}
          slotProps={{ select: { displayEmpty: true } }}
        >
          {devices.map(({ value, words }) => (
            <MenuItem key={value} value={value}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        {text('network', 'From the IP address', 'any')}
        {text('country', 'In the country', 'any')}
        {others && text('address', 'For another person', 'somebody else')}
      </div>
      <div className="row">
        <Button
          variant="text"
          onClick={() => {
            onAsk(NOW);
            setOpen(false);
          }}
        >
          Back to now
        </Button>
      </div>
    </>
  );
}

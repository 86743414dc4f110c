'use client';

import { createContext, useContext } from 'react';
import TextField from '@mui/material/TextField';

const AskedContext = createContext(false);

/** Tells everything inside whether the organisation asks for reasons. */
export const ReasonsAskedProvider = AskedContext.Provider;

/** Whether a reason has to be given. The server asks again; this only spares a second question. */
export function useReasonsAsked(): boolean {
  return useContext(AskedContext);
}

/** Why something is done; it is kept in the ledger. */
export function ReasonField({
  value,
  onChange,
  required = false,
  autoFocus = false,
}: {
  readonly value: string;
  readonly onChange: (reason: string) => void;
  readonly required?: boolean;
  readonly autoFocus?: boolean;
}) {
  return (
    <TextField
      label={required ? 'Reason' : 'Reason (optional)'}
      required={required}
      autoFocus={autoFocus}
      multiline
      fullWidth
      value={value}
      onChange={(event) => {
        onChange(event.target.value);
      }}
      slotProps={{ htmlInput: { maxLength: 500 } }}
    />
  );
}

'use client';

import TextField from '@mui/material/TextField';

/** Why something is done; it is kept in the ledger. */
export function ReasonField({ value, onChange, required = false }: { readonly value: string; readonly onChange: (reason: string) => void; readonly required?: boolean }) {
  return <TextField label={required ? 'Reason' : 'Reason (optional)'} required={required} autoFocus={required} multiline fullWidth value={value} onChange={(event) => { onChange(event.target.value); }} slotProps={{ htmlInput: { maxLength: 500 } }} />;
}

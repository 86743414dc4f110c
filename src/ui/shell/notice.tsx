'use client';

import type { ReactNode } from 'react';
import Alert from '@mui/material/Alert';
import type { Said } from '@/ui/http/use-attempt';

type Tone = 'says' | 'stops';

/** A note that stands out; `stops` where something went wrong. */
export function Note({
  tone = 'says',
  role = 'note',
  children,
  action,
}: {
  readonly tone?: Tone;
  readonly role?: 'alert' | 'status' | 'note';
  readonly children: ReactNode;
  readonly action?: ReactNode;
}) {
  return (
    <Alert
      severity={tone === 'stops' ? 'error' : 'warning'}
      role={role}
      icon={false}
      action={action}
      component="div"
    >
      {children}
    </Alert>
  );
}

/** Says what the last change came to. */
export function Notice({ said }: { readonly said: Said | null }) {
  if (said === null) return null;
  return (
    <Note tone={said.stops ? 'stops' : 'says'} role={said.stops ? 'alert' : 'status'}>
      {said.text}
    </Note>
  );
}

/** Says what went wrong, where something did. */
export function Problem({ words }: { readonly words: string | null }) {
  if (words === null) return null;
  return (
    <Note tone="stops" role="alert">
      {words}
    </Note>
  );
}

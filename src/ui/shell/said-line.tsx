'use client';

import Button from '@mui/material/Button';
import type { Changes } from '@/ui/grants/use-changes';

/** What the last change did, with the way back. */
export function SaidLine({ changes }: { readonly changes: Changes }) {
  const { said, busy } = changes;
  if (said === null) return null;
  return (
    <span role={said.stops ? 'alert' : 'status'} className={said.stops ? 'magenta' : ''}>
      {said.text}
      {said.undo !== null && (
        <Button variant="text" disabled={busy} onClick={() => void said.undo?.()}>
          Undo
        </Button>
      )}
    </span>
  );
}

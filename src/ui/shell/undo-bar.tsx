'use client';

import Button from '@mui/material/Button';
import Snackbar from '@mui/material/Snackbar';

type Props = {
  /** What was done; null: nothing. */
  readonly text: string | null;
  readonly stops?: boolean;
  readonly busy: boolean;
  /** Takes back what was done; null where that cannot be. */
  readonly onUndo: (() => void) | null;
  readonly onClose: () => void;
};

/**
 * Says what was done at the foot of the screen, with the way back. It stays until it is closed or
 * something else is done: an undo that goes away by itself is no undo.
 */
export function UndoBar({ text, stops = false, busy, onUndo, onClose }: Props) {
  return (
    <Snackbar
      open={text !== null}
      message={
        <span role={stops ? 'alert' : 'status'} className={stops ? 'magenta' : undefined}>
          {text}
        </span>
      }
      slotProps={{ content: { role: undefined } }}
      action={
        <>
          {onUndo !== null && (
            <Button variant="text" disabled={busy} onClick={onUndo}>
              Undo
            </Button>
          )}
          <Button variant="text" onClick={onClose}>
            Close
          </Button>
        </>
      }
    />
  );
}

'use client';

import type { Changes } from '@/ui/grants/use-changes';
import { UndoBar } from '@/ui/shell/undo-bar';

/** What the last change did, with the way back. */
export function SaidLine({ changes: { said, busy, hush } }: { readonly changes: Changes }) {
  const undo = said?.undo ?? null;
  return (
    <UndoBar
      text={said?.text ?? null}
      stops={said?.stops ?? false}
      busy={busy}
      onUndo={undo === null ? null : () => void undo()}
      onClose={hush}
    />
  );
}

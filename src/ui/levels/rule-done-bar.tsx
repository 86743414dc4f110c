'use client';

import type { Attempt } from '@/ui/http/use-attempt';
import type { RuleDone } from '@/ui/levels/rule-done';
import { UndoBar } from '@/ui/shell/undo-bar';

/** Says what was made of a rule, with its undo. */
export function RuleDoneBar({
  done,
  onGone,
  attempt,
  busy,
}: {
  readonly done: RuleDone | null;
  readonly onGone: () => void;
} & Pick<Attempt, 'attempt' | 'busy'>) {
  return (
    <UndoBar
      text={done?.text ?? null}
      busy={busy}
      onUndo={() => {
        onGone();
        if (done !== null) void attempt(done.undo, 'Undone.');
      }}
      onClose={onGone}
    />
  );
}

'use client';

import { useState, type ReactNode } from 'react';
import Button from '@mui/material/Button';
import { Notice } from '@/ui/shell/notice';
import { useAttempt, type Attempt } from '@/ui/http/use-attempt';
import { useHolds } from '@/ui/shell/permissions';
import type { RuleDone } from '@/ui/levels/rule-done';
import { RuleDoneBar } from '@/ui/levels/rule-done-bar';

/** A document's own rule of some kind: set in place, with what came of it and its undo. */
export function OwnRule({
  ask,
  form,
}: {
  readonly ask: string;
  readonly form: (
    given: Pick<Attempt, 'attempt' | 'busy'> & { readonly onDone: (done: RuleDone) => void },
  ) => ReactNode;
}) {
  const mayChange = useHolds('settings');
  const { busy, said, attempt } = useAttempt();
  const [open, setOpen] = useState(false);
  const [done, setDone] = useState<RuleDone | null>(null);
  return (
    <>
      <RuleDoneBar
        done={done}
        onGone={() => {
          setDone(null);
        }}
        attempt={attempt}
        busy={busy}
      />
      {mayChange && !open && (
        <div className="row">
          <Button
            onClick={() => {
              setOpen(true);
              setDone(null);
            }}
          >
            {ask}
          </Button>
        </div>
      )}
      {open &&
        form({
          attempt,
          busy,
          onDone: (made) => {
            setDone(made);
            setOpen(false);
          },
        })}
      {open && (
        <div className="row">
          <Button
            variant="text"
            onClick={() => {
              setOpen(false);
            }}
          >
            Close
          </Button>
        </div>
      )}
      <Notice said={said} />
    </>
  );
}

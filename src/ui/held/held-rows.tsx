'use client';

import { useEffect, useState } from 'react';
import { useRouter } from 'next/navigation';
import Button from '@mui/material/Button';
import type { HeldRow } from '@/contracts/dispatch';
import { counted } from '@/core/base/counted';
import { HOUR, MINUTE, SECOND } from '@/core/base/time';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { Moment } from '@/ui/time/moment';

/** `9:58`, where it leaves within the hour. */
function untilText(span: number): string {
  const left = Math.max(0, Math.ceil(span / SECOND));
  return `${String(Math.floor(left / 60))}:${String(left % 60).padStart(2, '0')}`;
}

/** How far the server's clock is on, a second at a time, from the moment that the page was made. */
function useTicking(now: number): number {
  const [started] = useState(() => Date.now());
  const [at, setAt] = useState(now);
  useEffect(() => {
    const timer = setInterval(() => {
      setAt(now + Date.now() - started);
    }, SECOND);
    return () => {
      clearInterval(timer);
    };
  }, [now, started]);
  return at;
}

/** Dispatches that are held back, with the time running and a way to stop each. */
export function HeldRows({
  held,
  now,
}: {
  readonly held: readonly HeldRow[];
  readonly now: number;
}) {
  const router = useRouter();
  const at = useTicking(now);
  const { busy, said, attempt } = useAttempt();
  const isDue = held.some(({ leavesAt, problem }) => problem === null && leavesAt <= at - SECOND);
  useEffect(() => {
    if (!isDue) return undefined;
    // It leaves within a second or two of its time.
    const timer = setTimeout(() => {
      router.refresh();
    }, 2 * SECOND);
    return () => {
      clearTimeout(timer);
    };
  }, [isDue, at, router]);
  if (held.length === 0) return <Notice said={said} />;
  const stop = async (row: HeldRow) => {
    const drafts: string[] = [];
    await attempt(async () => {
      const { draft } = await api('DELETE /api/v1/held/:id', { id: row.id });
      if (draft !== null) drafts.push(draft);
    }, `“${row.subject}” is stopped. Nobody was given anything.`);
    // After the page was asked for anew: going on before that would be taken back by it.
    for (const draft of drafts) router.push(`/compose?draft=${draft}`);
  };
  return (
    <section className="held" aria-label="Held back">
      <Notice said={said} />
      {held.map((row) => (
        <div key={row.id} className="row">
          <b>{row.subject}</b>
          <span className="quiet">
            {counted(row.documents, 'document')} to {counted(row.recipients, 'recipient')}
            {row.own ? '' : `, by ${row.by}`}
          </span>
          <Leaves row={row} at={at} />
          <span className="gap" />
          <Button
            disabled={busy}
            color="error"
            onClick={() => {
              void stop(row);
            }}
          >
            {row.problem === null ? 'Stop' : 'Back to Compose'}
          </Button>
          {row.approved && row.problem === null ? (
            <span className="quiet">approved for that time</span>
          ) : (
            <Button
              disabled={busy}
              onClick={() => void attempt(() => api('POST /api/v1/held/:id/now', { id: row.id }))}
            >
              {row.problem === null ? 'Send now' : 'Try again'}
            </Button>
          )}
        </div>
      ))}
    </section>
  );
}

function Leaves({
  row: { leavesAt, problem },
  at,
}: {
  readonly row: HeldRow;
  readonly at: number;
}) {
  if (problem !== null)
    return (
      <span className="magenta">It did not leave, and nobody was given anything. {problem}</span>
    );
  if (leavesAt - at > HOUR)
    return (
      <span className="lamp">
        leaves <Moment at={leavesAt} />
      </span>
    );
  return (
    <span className="lamp">
      {leavesAt <= at ? (
        'leaving now'
      ) : (
        <>
          leaves in{' '}
          <span className="figure" role="timer">
            {untilText(leavesAt - at)}
          </span>
        </>
      )}
      {leavesAt - at > MINUTE && <span className="hidden-text"> minutes</span>}
    </span>
  );
}

'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { ImpactFound } from '@/contracts/impact';
import type { DocumentId } from '@/core/base/ids';
import { api } from '@/ui/http/api';
import { useAttempt, type Said } from '@/ui/http/use-attempt';
import { ImpactWords } from '@/ui/levels/impact-words';
import { waitsWords } from '@/ui/words/rule-words';

type FilingChange = Readonly<Record<string, unknown>>;
type Asked = { readonly change: FilingChange; readonly impact: ImpactFound };

export type Filing = {
  readonly file: (change: FilingChange) => Promise<void>;
  readonly busy: boolean;
  readonly said: Said | null;
  /** What a change would do to people who have access, to be read before it is made; null: nothing is asked. */
  readonly asked: Asked | null;
  readonly go: () => Promise<void>;
  readonly leave: () => void;
};

/** Files documents; where another folder or marking would change what people may do, that is read before it is made. */
export function useFiling(
  documents: readonly DocumentId[],
  onDone: (said?: string) => void = () => undefined,
): Filing {
  const { busy, said: saidLast, attempt } = useAttempt();
  const [asked, setAsked] = useState<Asked | null>(null);
  const apply = async (change: FilingChange) => {
    let said: string | undefined;
    const done = await attempt(
      () => api('POST /api/v1/documents/file', { documents, ...change }),
      ({ waits }) => (said = waits ? waitsWords : undefined),
    );
    setAsked(null);
    if (done) onDone(said);
  };
  const file = async (change: FilingChange) => {
    if (!('folderId' in change) && !('markingId' in change)) return apply(change);
    const found: ImpactFound[] = [];
    if (
      !(await attempt(async () => {
        found.push(
          await api('POST /api/v1/documents/file/preview', {
            documents,
            ...change,
          }),
        );
      }))
    )
      return;
    const [impact] = found;
    if (impact === undefined || impact.pairs === 0) return apply(change);
    setAsked({ change, impact });
  };
  return {
    file,
    busy,
    said: saidLast,
    asked,
    go: async () => {
      if (asked !== null) await apply(asked.change);
    },
    leave: () => {
      setAsked(null);
    },
  };
}

/** Whom filing otherwise would touch, with the two answers. */
export function FilingImpact({ filing: { asked, busy, go, leave } }: { readonly filing: Filing }) {
  if (asked === null) return null;
  return (
    <section className="stack notice" aria-label="What this would change">
      <ImpactWords
        impact={asked.impact}
        other="would have other limits or another watermark from the next open"
      />
      <div className="row">
        <Button variant="contained" disabled={busy} onClick={() => void go()}>
          Move anyway
        </Button>
        <Button variant="text" onClick={leave}>
          Cancel
        </Button>
      </div>
    </section>
  );
}

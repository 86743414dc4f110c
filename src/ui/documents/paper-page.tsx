'use client';

import { useMemo } from 'react';
import type { PaperCopy } from '@/contracts/paper';
import { useAsked } from '@/ui/http/use-asked';
import { useAttempt } from '@/ui/http/use-attempt';
import { AboutDocument, type Named } from '@/ui/documents/about-document';
import { NotePaper, useUndoNoting } from '@/ui/documents/note-paper';
import { paperColumns } from '@/ui/documents/paper-columns';
import { Empty } from '@/ui/shell/empty';
import { Problem } from '@/ui/shell/notice';
import { UndoBar } from '@/ui/shell/undo-bar';
import { DataTable } from '@/ui/tables/data-table';
import { tickColumn, useTicks } from '@/ui/tables/ticks';

const nameOf = ({ number, name, address }: PaperCopy) =>
  `copy ${String(number)} of ${name === '' ? address : name}`;

/** The register of copies on paper: who made which, and what became of each. */
export function PaperPage(named: Named) {
  const { answer, problem } = useAsked('GET /api/v1/documents/:id/paper', { id: named.id });
  const attempt = useAttempt();
  const undo = useUndoNoting(named.id, attempt);
  const ticks = useTicks<PaperCopy['id']>();
  const columns = useMemo(
    () => [
      tickColumn({
        rows: answer?.copies ?? [],
        ticks,
        idOf: ({ id }: PaperCopy) => id,
        nameOf,
        may: () => true,
        all: 'Select all copies',
      }),
      ...paperColumns,
    ],
    [answer, ticks],
  );
  const chosen = (answer?.copies ?? []).filter(({ id }) => ticks.ticked.has(id));
  return (
    <AboutDocument {...named} heading={`Copies of ${named.title} on paper`}>
      <Problem words={problem} />
      {answer?.copies.length === 0 && (
        <Empty title="No print was made of this document">
          Every print that a recipient makes has a number, and comes here with whose it is.
        </Empty>
      )}
      {chosen.length > 0 && (
        <NotePaper
          document={named.id}
          chosen={chosen}
          attempt={attempt}
          onDone={(before) => {
            undo.offer(before);
            ticks.clear();
          }}
        />
      )}
      {answer !== null && answer.copies.length > 0 && (
        <DataTable
          id="paper"
          label="Copies on paper"
          columns={columns}
          rows={answer.copies}
          keyOf={({ id }) => id}
          isSelected={({ id }) => ticks.ticked.has(id)}
        />
      )}
      <UndoBar
        text={attempt.said?.text ?? null}
        stops={attempt.said?.stops === true}
        busy={attempt.busy}
        onUndo={undo.take}
        onClose={attempt.hush}
      />
    </AboutDocument>
  );
}

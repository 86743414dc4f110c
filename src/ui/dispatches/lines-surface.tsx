'use client';

import { useMemo, useState, type ReactNode } from 'react';
import type { EventMark, GrantRow } from '@/contracts/dispatch';
import type { DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import { LinePanel } from '@/ui/dispatches/line-panel';
import { PickedLines } from '@/ui/dispatches/picked-lines';
import { toLines } from '@/ui/dispatches/to-lines';
import { GrantPanel } from '@/ui/grants/grant-panel';
import { ReachBoard } from '@/ui/reach/reach-board';
import { ReachLegend } from '@/ui/reach/reach-legend';
import { ChipButton } from '@/ui/shell/chips';

type Props = {
  readonly head: ReactNode;
  readonly grants: readonly GrantRow[];
  readonly marks: readonly EventMark[];
  readonly now: number;
  readonly aside: ReactNode;
  /** The same as a list, in which a name selects. */
  readonly rows: (selected: GrantId | null, onSelect: (grant: GrantId) => void) => ReactNode;
};

/** A dispatch on its reach lines: pick people, move their ends, cut them off or let them back in. */
export function LinesSurface({ head, grants, marks, now, aside, rows }: Props) {
  const [asRows, setAsRows] = useState(false);
  const [row, setRow] = useState<GrantId | null>(null);
  const [document, setDocument] = useState<DocumentId | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<RecipientId>>(new Set());
  const inRow = asRows ? grants.find((grant) => grant.id === row) : undefined;
  const picked = grants.filter(
    (grant) =>
      selected.has(grant.recipientId) && (document === null || grant.documentId === document),
  );
  return (
    <main className="work">
      <div className="surface">
        <div className="head">{head}</div>
        <div className="scroll">
          <div className="row acts-bar">
            {!asRows && (
              <DocumentChips grants={grants} document={document} onDocument={setDocument} />
            )}
            <ChipButton
              aria-pressed={asRows}
              onClick={() => {
                setAsRows(!asRows);
              }}
            >
              {asRows ? 'Lines' : 'Table'}
            </ChipButton>
            <span className="gap" />
            {!asRows && <ReachLegend />}
          </div>
          {asRows ? (
            rows(row, setRow)
          ) : (
            <Lines
              grants={grants}
              marks={marks}
              now={now}
              document={document}
              picked={picked}
              selected={selected}
              onSelect={setSelected}
            />
          )}
        </div>
      </div>
      <aside className="side" aria-label="Explanation">
        {inRow !== undefined && (
          <>
            <GrantPanel grant={inRow} now={now} />
            <hr />
          </>
        )}
        {!asRows && selected.size > 0 && (
          <>
            <LinePanel grants={picked} now={now} onDocument={setDocument} />
            <hr />
          </>
        )}
        {aside}
      </aside>
    </main>
  );
}

/** Which of several documents the lines are about. */
function DocumentChips({
  grants,
  document,
  onDocument,
}: {
  readonly grants: readonly GrantRow[];
  readonly document: DocumentId | null;
  readonly onDocument: (id: DocumentId | null) => void;
}) {
  const titles = new Map(grants.map((grant) => [grant.documentId, grant.documentTitle]));
  if (titles.size < 2) return null;
  return [null, ...titles.keys()].map((id) => (
    <ChipButton
      key={id ?? 'all'}
      aria-pressed={document === id}
      onClick={() => {
        onDocument(id);
      }}
    >
      {id === null ? 'All documents' : titles.get(id)}
    </ChipButton>
  ));
}

type LinesProps = Pick<Props, 'grants' | 'marks' | 'now'> & {
  readonly document: DocumentId | null;
  readonly picked: readonly GrantRow[];
  readonly selected: ReadonlySet<RecipientId>;
  readonly onSelect: (selected: ReadonlySet<RecipientId>) => void;
};

/** The lines themselves, with the end that is being moved and what can be done with those picked. */
function Lines({ grants, marks, now, document, picked, selected, onSelect }: LinesProps) {
  const [proposed, setProposed] = useState<number | null | undefined>(undefined);
  const lines = useMemo(() => {
    if (document === null) return toLines(grants, marks);
    return toLines(
      grants.filter(({ documentId }) => documentId === document),
      marks.filter(({ documentId }) => documentId === document),
    );
  }, [grants, marks, document]);
  return (
    <>
      <ReachBoard
        lines={lines}
        now={now}
        selected={selected}
        onSelect={(next) => {
          onSelect(next);
          setProposed(undefined);
        }}
        proposed={proposed}
        onPropose={(recipient, until) => {
          if (!selected.has(recipient)) onSelect(new Set([recipient]));
          setProposed(until);
        }}
      />
      <PickedLines
        grants={picked}
        people={selected.size}
        proposed={proposed}
        onLeave={() => {
          setProposed(undefined);
        }}
      />
    </>
  );
}

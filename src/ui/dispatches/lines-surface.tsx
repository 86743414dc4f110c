'use client';

import { useMemo, useState, type ReactNode } from 'react';
import Button from '@mui/material/Button';
import type { EventMark, GrantRow } from '@/contracts/dispatch';
import type { DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import { groupBy } from '@/core/base/group';
import { reachLines } from '@/core/reach/lines';
import { ChipButton } from '@/ui/shell/chips';
import { ConfirmRevoke } from '@/ui/grants/confirm-revoke';
import { personName, underCeilings } from '@/ui/grants/grant-words';
import { GrantPanel } from '@/ui/grants/grant-panel';
import { LinePanel } from '@/ui/dispatches/line-panel';
import { RightsChange } from '@/ui/dispatches/rights-change';
import { SaidLine } from '@/ui/shell/said-line';
import { useChanges } from '@/ui/grants/use-changes';
import { ReachBoard, type BoardLine } from '@/ui/reach/reach-board';
import { ReachLegend } from '@/ui/reach/reach-legend';
import { momentText } from '@/core/base/moment-text';
import { whoLine } from '@/ui/words/addressee-words';
import { useZone } from '@/ui/time/use-zone';
import { rightsLine } from '@/core/policy/rights-line';

type Props = {
  readonly head: ReactNode;
  readonly grants: readonly GrantRow[];
  readonly marks: readonly EventMark[];
  readonly now: number;
  readonly aside: ReactNode;
  /** The same as a list, in which a name selects. */ readonly rows: (
    selected: GrantId | null,
    onSelect: (grant: GrantId) => void,
  ) => ReactNode;
};

function toLines(grants: readonly GrantRow[], marks: readonly EventMark[]): BoardLine[] {
  const effective = grants.map(underCeilings);
  const byPerson = groupBy(effective, (grant) => grant.recipientId);
  return reachLines(effective, marks).map((line) => {
    const own = byPerson.get(line.recipientId) ?? [];
    const [first] = own;
    const may = [...new Set(own.map((grant) => rightsLine(grant.rights, grant.prints)))];
    return {
      ...line,
      name: first === undefined ? '' : personName(first),
      under: first === undefined ? '' : whoLine(first),
      may: may.length === 1 ? (may[0] ?? '') : 'differs',
      mayChange: own.every((grant) => grant.mayChange),
    };
  });
}

/** A dispatch on its reach lines: pick people, move their ends, cut them off or let them back in. */
export function LinesSurface({ head, grants, marks, now, aside, rows }: Props) {
  const zone = useZone();
  const changes = useChanges();
  const [asRows, setAsRows] = useState(false);
  const [row, setRow] = useState<GrantId | null>(null);
  const [document, setDocument] = useState<DocumentId | null>(null);
  const [selected, setSelected] = useState<ReadonlySet<RecipientId>>(new Set());
  const [proposed, setProposed] = useState<number | null | undefined>(undefined);
  const [asking, setAsking] = useState(false);
  const [rights, setRights] = useState(false);

  const shown = useMemo(
    () => grants.filter((grant) => document === null || grant.documentId === document),
    [grants, document],
  );
  const lines = useMemo(
    () =>
      toLines(
        shown,
        marks.filter((mark) => document === null || mark.documentId === document),
      ),
    [shown, marks, document],
  );
  const inRow = asRows ? grants.find((grant) => grant.id === row) : undefined;
  const titles = new Map(grants.map((grant) => [grant.documentId, grant.documentTitle]));
  const picked = shown.filter((grant) => selected.has(grant.recipientId));
  const standing = picked.filter((grant) => grant.revokedAt === null);
  const revoked = picked.filter((grant) => grant.revokedAt !== null);
  const mayChange = picked.length > 0 && picked.every((grant) => grant.mayChange);
  const before = new Set(standing.map((grant) => grant.until));
  const select = (next: ReadonlySet<RecipientId>) => {
    setSelected(next);
    setProposed(undefined);
    setRights(false);
  };
  const propose = (recipient: RecipientId, until: number) => {
    if (!selected.has(recipient)) setSelected(new Set([recipient]));
    setProposed(until);
  };
  const textOf = (moment: number | null) => (moment === null ? 'no end' : momentText(moment, zone));

  return (
    <main className="work">
      <div className="surface">
        <div className="head">{head}</div>
        <div className="scroll">
          <div className="row bar">
            {titles.size > 1 &&
              !asRows &&
              [null, ...titles.keys()].map((id) => (
                <ChipButton
                  key={id ?? 'all'}
                  aria-pressed={document === id}
                  onClick={() => {
                    setDocument(id);
                  }}
                >
                  {id === null ? 'All documents' : titles.get(id)}
                </ChipButton>
              ))}
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
            <>
              <ReachBoard
                lines={lines}
                now={now}
                selected={selected}
                onSelect={select}
                proposed={proposed}
                onPropose={propose}
              />
              <div className="row" style={{ padding: '0 22px 14px', minHeight: 36 }}>
                {proposed === undefined ? (
                  <>
                    <span className="quiet">
                      {selected.size === 0
                        ? 'Select a line. Drag its end to move it; hold Shift to select several.'
                        : `${String(selected.size)} selected`}
                    </span>
                    {mayChange && standing.length > 0 && (
                      <Button
                        disabled={changes.busy}
                        aria-expanded={rights}
                        onClick={() => {
                          setRights(!rights);
                        }}
                      >
                        Change rights
                      </Button>
                    )}
                    {mayChange && standing.length > 0 && (
                      <Button
                        color="error"
                        disabled={changes.busy}
                        onClick={() => {
                          setAsking(true);
                        }}
                      >
                        Revoke {standing.length}…
                      </Button>
                    )}
                    {mayChange && revoked.length > 0 && (
                      <Button
                        disabled={changes.busy}
                        onClick={() => void changes.reinstate(revoked)}
                      >
                        Reinstate {revoked.length}
                      </Button>
                    )}
                    <SaidLine changes={changes} />
                  </>
                ) : (
                  <>
                    <span role="status">
                      End of{' '}
                      {standing.length === 1 ? 'this grant' : `${String(standing.length)} grants`}:{' '}
                      <span className="figure">
                        {before.size === 1 ? textOf([...before][0] ?? null) : 'different ends'}
                      </span>{' '}
                      → <b className="figure">{textOf(proposed)}</b>
                    </span>
                    <Button
                      variant="contained"
                      disabled={changes.busy || standing.length === 0}
                      onClick={() =>
                        void changes.moveEnds(standing, proposed).then(() => {
                          setProposed(undefined);
                        })
                      }
                    >
                      Move {standing.length === 1 ? 'the end' : `${String(standing.length)} ends`}
                    </Button>
                    <Button
                      onClick={() => {
                        setProposed(undefined);
                      }}
                    >
                      Cancel
                    </Button>
                  </>
                )}
              </div>
              {rights && standing.length > 0 && (
                <RightsChange
                  key={standing.map((grant) => grant.id).join()}
                  grants={standing}
                  changes={changes}
                  onDone={() => {
                    setRights(false);
                  }}
                />
              )}
            </>
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
      <ConfirmRevoke
        open={asking}
        busy={changes.busy}
        grants={standing}
        onClose={() => {
          setAsking(false);
        }}
        onConfirm={(also, reason) =>
          void changes.revoke(standing, also, reason).then(() => {
            setAsking(false);
          })
        }
      />
    </main>
  );
}

'use client';

import { summaryWords } from '@/core/insight/coverage';
import type { GrantRow } from '@/contracts/dispatch';
import type { GrantId } from '@/core/base/ids';
import { conditionLines } from '@/core/policy/condition-lines';
import { rightsLine } from '@/core/policy/rights-line';
import { personName, stateOf, stateTone, stateWords, underCeilings } from '@/ui/grants/grant-words';
import type { Column } from '@/ui/tables/column';
import { RowButton } from '@/ui/tables/row-button';
import { Moment } from '@/ui/time/moment';
import { whoLine } from '@/ui/words/addressee-words';
import { EntriesFigure } from '@/ui/words/entries-figure';

function mayText(grant: GrantRow): string {
  const { rights, prints } = underCeilings(grant);
  return rightsLine(rights, prints);
}

const document: Column<GrantRow> = {
  id: 'document',
  header: 'Document',
  width: 170,
  orderBy: (grant) => grant.documentTitle,
  cell: (grant) => grant.documentTitle,
};

function person(onSelect: (id: GrantId) => void): Column<GrantRow> {
  return {
    id: 'person',
    header: 'Person',
    width: 200,
    kind: 'oneline',
    orderBy: personName,
    cell: (grant) => (
      <>
        <RowButton
          onPress={() => {
            onSelect(grant.id);
          }}
        >
          {personName(grant)}
        </RowButton>
        <span className="under oneline">{whoLine(grant)}</span>
      </>
    ),
  };
}

/** What else must hold, shortened to the cell. */
function ConditionsUnder({ grant }: { readonly grant: GrantRow }) {
  const lines = conditionLines(grant.conditions, 'their zone').join('; ');
  return lines === '' ? null : (
    <span className="under oneline" title={lines}>
      {lines}
    </span>
  );
}

function held(now: number): readonly Column<GrantRow>[] {
  return [
    {
      id: 'may',
      header: 'May',
      width: 130,
      orderBy: mayText,
      cell: (grant) => (
        <>
          {mayText(grant)}
          {grant.capped?.byCeiling === true && <span className="under">under a ceiling</span>}
          <ConditionsUnder grant={grant} />
        </>
      ),
    },
    {
      id: 'until',
      header: 'Until',
      width: 140,
      // Without an end is latest of all.
      orderBy: (grant) => underCeilings(grant).until ?? Number.MAX_SAFE_INTEGER,
      cell: (grant) => {
        const { until } = underCeilings(grant);
        return until === null ? <span className="lamp">no end</span> : <Moment at={until} />;
      },
    },
    {
      id: 'state',
      header: 'State',
      width: 100,
      orderBy: (grant) => stateWords[stateOf(grant, now)],
      cell: (grant) => {
        const state = stateOf(grant, now);
        return <span className={stateTone[state]}>{stateWords[state]}</span>;
      },
    },
  ];
}

const opens: Column<GrantRow> = {
  id: 'opens',
  header: 'Opens',
  width: 68,
  kind: 'number',
  orderBy: (grant) => grant.opens,
  cell: (grant) => (
    <EntriesFigure
      n={grant.opens}
      of={{
        document: grant.documentId,
        recipient: grant.recipientId,
        dispatch: grant.dispatchId,
        kind: 'opened',
      }}
    />
  ),
};
const read: Column<GrantRow> = {
  id: 'read',
  header: 'Read',
  width: 96,
  orderBy: (grant) => grant.read?.read ?? null,
  cell: (grant) => grant.read !== null && summaryWords(grant.read),
};
const refusals: Column<GrantRow> = {
  id: 'refusals',
  header: 'Refused',
  width: 76,
  kind: 'number',
  orderBy: (grant) => grant.refusals,
  cell: (grant) => (
    <EntriesFigure
      n={grant.refusals}
      of={{ document: grant.documentId, recipient: grant.recipientId, kind: 'refused' }}
    />
  ),
};

/** Who may do what until when, with what came of it. */
export function grantColumns(
  now: number,
  showDocument: boolean,
  onSelect: (id: GrantId) => void,
): readonly Column<GrantRow>[] {
  return [
    person(onSelect),
    ...(showDocument ? [document] : []),
    ...held(now),
    opens,
    read,
    refusals,
  ];
}

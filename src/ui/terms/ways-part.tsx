'use client';

import { useMemo } from 'react';
import type { RuleRow } from '@/contracts/rules';
import { LEAVES, type Leave } from '@/core/policy/rules';
import type { Column } from '@/ui/tables/column';
import { DataTable } from '@/ui/tables/data-table';
import { RowButton } from '@/ui/tables/row-button';
import { Moment } from '@/ui/time/moment';
import { leaveWords, wayWords } from '@/ui/words/rule-words';

const leaveTone: Partial<Record<Leave, string>> = { forbidden: 'magenta', agreed: 'lamp' };

function columnsOf(
  mayChange: boolean,
  onOpen: (rule: RuleRow) => void,
): readonly Column<RuleRow>[] {
  return [
    {
      id: 'way',
      header: 'Way',
      width: 270,
      orderBy: (rule) => wayWords[rule.way].name,
      cell: (rule) => (
        <>
          {mayChange ? (
            <RowButton
              onPress={() => {
                onOpen(rule);
              }}
            >
              {wayWords[rule.way].name}
            </RowButton>
          ) : (
            <b>{wayWords[rule.way].name}</b>
          )}
          <span className="under">{wayWords[rule.way].hint}</span>
        </>
      ),
    },
    {
      id: 'leave',
      header: 'Who may',
      width: 250,
      orderBy: (rule) => LEAVES.indexOf(rule.leave),
      cell: (rule) => (
        <>
          <span className={leaveTone[rule.leave]}>{leaveWords[rule.leave]}</span>
          {rule.reason !== '' && <span className="under">“{rule.reason}”</span>}
        </>
      ),
    },
    {
      id: 'setAt',
      header: 'Set',
      width: 200,
      orderBy: (rule) => rule.setAt,
      cell: (rule) =>
        rule.setAt === null ? (
          <span className="quiet">initial setting</span>
        ) : (
          <>
            <Moment at={rule.setAt} />
            <span className="under">by {rule.setByName}</span>
          </>
        ),
    },
  ];
}

/** What may be handed out and how, as the organisation decided; for what is sent from now on. */
export function WaysPart({
  rules,
  mayChange,
  selected,
  onOpen,
}: {
  readonly rules: readonly RuleRow[];
  readonly mayChange: boolean;
  readonly selected: RuleRow | null;
  readonly onOpen: (rule: RuleRow) => void;
}) {
  const columns = useMemo(() => columnsOf(mayChange, onOpen), [mayChange, onOpen]);
  return (
    <section aria-label="Ways of delivery">
      <div className="row part-head">
        <h1 className="large">Ways of delivery</h1>
        <span className="quiet">what senders may do on their own</span>
      </div>
      <DataTable
        id="ways"
        label="Ways of delivery"
        columns={columns}
        rows={rules}
        keyOf={({ way }) => way}
        isSelected={({ way }) => selected?.way === way}
      />
    </section>
  );
}

'use client';

import { useMemo } from 'react';
import Button from '@mui/material/Button';
import { LEVELS, type Level } from '@/core/policy/levels';
import type { Column } from '@/ui/tables/column';
import { DataTable } from '@/ui/tables/data-table';
import { RowButton } from '@/ui/tables/row-button';
import { Moment } from '@/ui/time/moment';
import { levelNames } from '@/ui/words/limit-words';

export type Rule = {
  readonly level: Level;
  readonly subject: string;
  readonly name: string;
  readonly setBy: string;
  readonly setAt: number;
};

type Props<T extends Rule> = {
  readonly id: string;
  readonly title: string;
  readonly what: string;
  readonly none: string;
  readonly add: string;
  readonly rules: readonly T[];
  readonly linesOf: (rule: T) => readonly string[];
  readonly mayChange: boolean;
  readonly selected: Rule | 'new' | null;
  readonly onOpen: (rule: T | 'new') => void;
};

function columnsOf<T extends Rule>(
  linesOf: (rule: T) => readonly string[],
  onOpen: (rule: T) => void,
): readonly Column<T>[] {
  return [
    {
      id: 'level',
      header: 'Level',
      width: 100,
      orderBy: (row) => LEVELS.indexOf(row.level),
      cell: (row) => <span className="quiet">{levelNames[row.level]}</span>,
    },
    {
      id: 'name',
      header: 'For',
      width: 170,
      orderBy: (row) => row.name,
      cell: (row) => (
        <RowButton
          onPress={() => {
            onOpen(row);
          }}
        >
          {row.name}
        </RowButton>
      ),
    },
    { id: 'lines', header: 'Sets', width: 300, cell: (row) => linesOf(row).join('; ') },
    {
      id: 'setAt',
      header: 'Set',
      width: 200,
      orderBy: (row) => row.setAt,
      cell: (row) => (
        <>
          <Moment at={row.setAt} />
          <span className="under">by {row.setBy}</span>
        </>
      ),
    },
  ];
}

/** Rules of one kind on every level, from the outermost in. */
export function RulesPart<T extends Rule>(props: Props<T>) {
  const { title, what, none, add, mayChange, rules, selected, onOpen } = props;
  return (
    <section aria-label={title}>
      <div className="row part-head">
        <h1 className="large">{title}</h1>
        <span className="quiet">{what}</span>
        <span className="gap" />
        {mayChange && (
          <Button
            onClick={() => {
              onOpen('new');
            }}
          >
            {add}
          </Button>
        )}
      </div>
      {rules.length === 0 ? (
        <p className="quiet part-none">{none}</p>
      ) : (
        <RulesTable {...props} selected={selected} />
      )}
    </section>
  );
}

function RulesTable<T extends Rule>({ id, title, rules, linesOf, selected, onOpen }: Props<T>) {
  const columns = useMemo(() => columnsOf(linesOf, onOpen), [linesOf, onOpen]);
  const rows = useMemo(
    () =>
      [...rules].sort(
        (a, b) => LEVELS.indexOf(a.level) - LEVELS.indexOf(b.level) || a.name.localeCompare(b.name),
      ),
    [rules],
  );
  const isSelected = (row: T) =>
    selected !== null &&
    selected !== 'new' &&
    selected.level === row.level &&
    selected.subject === row.subject;
  return (
    <DataTable
      id={id}
      label={title}
      columns={columns}
      rows={rows}
      keyOf={(row) => `${row.level} ${row.subject}`}
      isSelected={isSelected}
    />
  );
}

'use client';

import Button from '@mui/material/Button';
import { LEVELS, type Level } from '@/core/policy/levels';
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
  readonly title: string;
  readonly what: string;
  readonly none: string;
  readonly add: string;
  readonly rules: readonly T[];
  readonly linesOf: (rule: T) => readonly string[];
  readonly mayChange: boolean;
  readonly selected: Rule | null;
  readonly onOpen: (rule: T | 'new') => void;
};

/** Rules of one kind on every level, from the outermost in. */
export function RulesPart<T extends Rule>({
  title,
  what,
  none,
  add,
  rules,
  linesOf,
  mayChange,
  selected,
  onOpen,
}: Props<T>) {
  const rows = [...rules].sort(
    (a, b) => LEVELS.indexOf(a.level) - LEVELS.indexOf(b.level) || a.name.localeCompare(b.name),
  );
  return (
    <section className="part-head" aria-label={title}>
      <div className="row">
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
      {rows.length === 0 ? (
        <p className="quiet above-8">
          {none}
        </p>
      ) : (
        <table className="list">
          <tbody>
            {rows.map((row) => (
              <tr
                key={`${row.level} ${row.subject}`}
                aria-selected={selected?.level === row.level && selected.subject === row.subject}
              >
                <td style={{ paddingLeft: 0, width: 110 }} className="quiet">
                  {levelNames[row.level]}
                </td>
                <td style={{ width: '24%' }}>
                  <button
                    type="button"
                    className="row-button"
                    onClick={() => {
                      onOpen(row);
                    }}
                  >
                    {row.name}
                  </button>
                </td>
                <td>{linesOf(row).join('; ')}</td>
                <td>
                  <Moment at={row.setAt} /> <span className="quiet">by {row.setBy}</span>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}

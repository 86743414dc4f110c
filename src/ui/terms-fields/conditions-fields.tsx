'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import { conditionLines } from '@/core/policy/condition-lines';
import type { ConditionName, Conditions } from '@/core/policy/conditions';
import type { ConditionField } from '@/ui/terms-fields/condition-field';
import { CONDITION_FIELDS } from '@/ui/terms-fields/condition-fields';

type Props = {
  readonly value: Conditions | undefined;
  readonly onChange: (value: Conditions | undefined) => void;
  /** Whether the fields are open from the start. */
  readonly begun?: boolean;
};

/** Conditions: closed while nothing of it is set. */
export function ConditionsFields({ value, onChange, begun = false }: Props) {
  const lines = conditionLines(value, 'their zone, or ours where theirs is not known');
  const [open, setOpen] = useState(begun);
  if (!open)
    return (
      <div className="row">
        <Button
          variant="text"
          onClick={() => {
            setOpen(true);
          }}
        >
          Conditions…
        </Button>
        <span className="quiet">
          {lines.length === 0
            ? 'any number of times, from anywhere, at any hour'
            : lines.join('; ')}
        </span>
      </div>
    );
  return (
    <section className="stack" aria-label="Conditions">
      <h2>Conditions</h2>
      {LINES.map(([line, names]) => (
        <div
          key={line}
          className={line === 'switches' ? 'row' : line === 'own' ? 'stack' : 'fields'}
        >
          {names.map((name) => (
            <OneField key={name} name={name} value={value} onChange={onChange} />
          ))}
        </div>
      ))}
    </section>
  );
}

/** The lines of the form, and which conditions stand in each, in the order of the table. */
const LINES = (['counts', 'places', 'switches', 'own'] as const).map(
  (line) =>
    [
      line,
      (Object.keys(CONDITION_FIELDS) as ConditionName[]).filter(
        (name) => CONDITION_FIELDS[name].line === line,
      ),
    ] as const,
);

function OneField({
  name,
  value,
  onChange,
}: Omit<Props, 'begun'> & { readonly name: ConditionName }) {
  // Name and value belong together: the table has for each name the field of its value.
  const { Field } = CONDITION_FIELDS[name] as ConditionField<unknown>;
  return (
    <Field
      value={value?.[name] ?? null}
      onChange={(next) => {
        const { [name]: _before, ...others } = value ?? {};
        const set: Conditions = next === null ? others : { ...others, [name]: next };
        onChange(Object.keys(set).length === 0 ? undefined : set);
      }}
    />
  );
}

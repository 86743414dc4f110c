import type { ReactNode } from 'react';

/** What the form field of a condition is given; `null`: it is not asked. */
export type ConditionFieldProps<Value> = {
  readonly value: Value | null;
  readonly onChange: (value: Value | null) => void;
};

/** The field of a condition with such a value, and the line of the form it stands in. */
export type ConditionField<Value> = {
  readonly line: 'counts' | 'places' | 'switches' | 'own';
  readonly Field: (props: ConditionFieldProps<Value>) => ReactNode;
};

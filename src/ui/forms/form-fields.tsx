'use client';

import { useState, type ReactNode } from 'react';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import TextField, { type TextFieldProps } from '@mui/material/TextField';
import {
  useController,
  type Control,
  type FieldError,
  type FieldPath,
  type FieldValues,
} from 'react-hook-form';
import { listIn } from '@/ui/words/list-words';

/** A field of a form by its name in the contract. */
export type FormFieldProps<T extends FieldValues, O = T> = {
  readonly control: Control<T, unknown, O>;
  readonly name: FieldPath<T>;
  readonly label: string;
  readonly hint?: ReactNode;
  readonly disabled?: boolean;
} & Pick<
  TextFieldProps,
  | 'type'
  | 'autoComplete'
  | 'autoFocus'
  | 'multiline'
  | 'placeholder'
  | 'slotProps'
  | 'className'
  | 'required'
>;

/** A contract's words as a sentence of their own: `The name is missing.` */
export function sentence(words: string): string {
  const whole = words.charAt(0).toUpperCase() + words.slice(1);
  return /[.?!]$/.test(whole) ? whole : `${whole}.`;
}

/** What is wrong with a field, or with the first part of it that is. */
function wordsOf(error: FieldError | undefined): string | undefined {
  if (error === undefined || typeof error.message === 'string') return error?.message;
  const parts = Object.values(error) as readonly (FieldError | undefined)[];
  return parts.find((part) => part?.message !== undefined)?.message;
}

function useField<T extends FieldValues, O>({
  control,
  name,
  hint,
  disabled,
}: FormFieldProps<T, O>) {
  const { field, fieldState } = useController({ control, name });
  const wrong = wordsOf(fieldState.error);
  return {
    field,
    shown: {
      inputRef: field.ref,
      name: field.name,
      onBlur: field.onBlur,
      disabled: disabled ?? false,
      error: wrong !== undefined,
      helperText: wrong === undefined ? hint : sentence(wrong),
    },
  };
}

/** A line or more of text. */
export function FormText<T extends FieldValues, O>({
  orNull = false,
  ...props
}: FormFieldProps<T, O> & {
  /** Empty: it is not known, which is not the same as an empty text. */
  readonly orNull?: boolean;
}) {
  const { control: _control, hint: _hint, ...rest } = props;
  const { field, shown } = useField(props);
  return (
    <TextField
      {...rest}
      {...shown}
      value={field.value ?? ''}
      onChange={({ target: { value } }) => {
        field.onChange(orNull && value === '' ? null : value);
      }}
    />
  );
}

/** A whole number; empty: none is set. */
export function FormNumber<T extends FieldValues, O>({
  min = 1,
  max,
  ...props
}: FormFieldProps<T, O> & { readonly min?: number; readonly max?: number }) {
  const { control: _control, hint: _hint, ...rest } = props;
  const { field, shown } = useField(props);
  const given = field.value as number | null | undefined;
  return (
    <TextField
      {...rest}
      {...shown}
      // What empty means need not be said of what is not empty.
      helperText={shown.error || given == null ? shown.helperText : undefined}
      type="number"
      value={field.value ?? ''}
      onChange={({ target: { value } }) => {
        field.onChange(value === '' ? null : Math.floor(Number(value)));
      }}
      slotProps={{ htmlInput: { min, max } }}
    />
  );
}

/** Several texts, parted by commas, spaces or lines; empty: no list at all, or an empty one. */
export function FormList<T extends FieldValues, O>({
  joint,
  none = 'null',
  ...props
}: FormFieldProps<T, O> & { readonly joint: string; readonly none?: 'null' | 'empty' }) {
  const { control: _control, hint: _hint, ...rest } = props;
  const { field, shown } = useField(props);
  const given = field.value as readonly string[] | null | undefined;
  const [text, setText] = useState(given?.join(joint) ?? '');
  // What was typed stays as it was typed, unless the form was given other values.
  const same = JSON.stringify(listIn(text) ?? []) === JSON.stringify(given ?? []);
  return (
    <TextField
      {...rest}
      {...shown}
      helperText={shown.error || given == null || given.length === 0 ? shown.helperText : undefined}
      value={same ? text : (given?.join(joint) ?? '')}
      onChange={({ target: { value } }) => {
        setText(value);
        field.onChange(listIn(value) ?? (none === 'empty' ? [] : null));
      }}
    />
  );
}

/** One of several. */
export function FormSelect<T extends FieldValues, O>({
  options,
  ...props
}: FormFieldProps<T, O> & {
  readonly options: readonly { readonly value: string; readonly words: string }[];
}) {
  const { control: _control, hint: _hint, ...rest } = props;
  const { field, shown } = useField(props);
  return (
    <TextField
      {...rest}
      {...shown}
      select
      value={field.value ?? ''}
      onChange={field.onChange}
      slotProps={{ select: { displayEmpty: true } }}
    >
      {options.map(({ value, words }) => (
        <MenuItem key={value} value={value}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
}

/** Yes or no. */
export function FormSwitch<T extends FieldValues, O>({
  control,
  name,
  label,
}: Pick<FormFieldProps<T, O>, 'control' | 'name' | 'label'>) {
  const { field } = useController({ control, name });
  return (
    <FormControlLabel
      className="nowrap"
      control={
        <Checkbox
          checked={field.value === true}
          onChange={(_event, on) => {
            field.onChange(on);
          }}
        />
      }
      label={label}
    />
  );
}

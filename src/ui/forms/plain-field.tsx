'use client';

import InputBase, { type InputBaseProps } from '@mui/material/InputBase';

type Props = Pick<InputBaseProps, 'inputRef' | 'placeholder' | 'type' | 'value'> & {
  /** What it is for, read out to people who cannot see where it stands. */
  readonly label: string;
  readonly className?: string;
  readonly onText?: (text: string) => void;
};

/** A field with no more than a dotted line, where a whole one would be too loud: in a row, above a list. */
export function PlainField({ label, className = '', onText, ...rest }: Props) {
  return (
    <InputBase
      {...rest}
      className={`plain-field ${className}`}
      inputProps={{ 'aria-label': label }}
      onChange={({ target }) => onText?.(target.value)}
    />
  );
}

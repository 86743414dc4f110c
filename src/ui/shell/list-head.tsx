'use client';

import type { ReactNode } from 'react';
import TextField from '@mui/material/TextField';

type Props = {
  readonly title: string;
  readonly words: string;
  readonly search: string;
  readonly onSearch: (text: string) => void;
  readonly placeholder: string;
  readonly children?: ReactNode;
};

/** The head of a list: its name, how much it holds, where to narrow it, and what can be done. */
export function ListHead({ title, words, search, onSearch, placeholder, children }: Props) {
  return (
    <div className="row">
      <h1>{title}</h1>
      <span className="quiet">{words}</span>
      <span className="gap" />
      <TextField
        label="Search"
        sx={{ maxWidth: 260 }}
        value={search}
        onChange={(event) => {
          onSearch(event.target.value);
        }}
        placeholder={placeholder}
      />
      {children}
    </div>
  );
}

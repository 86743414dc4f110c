'use client';

import type { ReactNode } from 'react';
import Button from '@mui/material/Button';
import type { FieldValues } from 'react-hook-form';
import type { ContractForm } from '@/ui/forms/use-contract-form';
import { Emblem } from '@/ui/shell/emblem';

/** A page before anybody is signed in. */
export function EntryPage({
  title,
  children,
}: {
  readonly title: string;
  readonly children: ReactNode;
}) {
  return (
    <main className="entry">
      <div className="brand">
        <Emblem />
        Embargo
      </div>
      <h1>{title}</h1>
      {children}
    </main>
  );
}

type Props<I extends FieldValues, O> = {
  readonly title: string;
  readonly action: string;
  readonly of: ContractForm<I, O>;
  readonly children: ReactNode;
  readonly below?: ReactNode;
};

/** Such a page with one form on it. */
export function EntryForm<I extends FieldValues, O>({
  title,
  action,
  of: { busy, problem, onSubmit },
  children,
  below,
}: Props<I, O>) {
  return (
    <EntryPage title={title}>
      <form className="stack entry-fields" noValidate onSubmit={onSubmit}>
        {children}
        {problem !== null && (
          <p role="alert" className="magenta">
            {problem}
          </p>
        )}
        <div className="row">
          <Button type="submit" variant="contained" disabled={busy}>
            {action}
          </Button>
        </div>
        {below}
      </form>
    </EntryPage>
  );
}

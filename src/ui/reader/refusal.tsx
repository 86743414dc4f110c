'use client';

import type { ReactNode } from 'react';
import Button from '@mui/material/Button';
import { DEFAULT_LANGUAGE } from '@/core/base/languages';
import type { RefusalReason } from '@/core/policy/decide';
import { refusalWords } from '@/ui/words/reason-words';
import { Moment } from '@/ui/time/moment';
import { Mark } from '@/ui/marks/mark';

/** Says what happened and what the person can do, and nothing about anybody else. */
export function Refusal({
  reason,
  at,
  address,
  sender,
  onLeave,
  onBack,
  more,
}: {
  readonly reason: RefusalReason;
  /** When it ended or will begin, where that is known. */ readonly at: number | null;
  readonly address: string;
  readonly sender: { readonly name: string; readonly email: string } | null;
  readonly onLeave: () => void;
  readonly onBack: (() => void) | null;
  /** A way to ask for more, shown where time may help. */ readonly more: ReactNode;
}) {
  const words = refusalWords[DEFAULT_LANGUAGE][reason];
  return (
    <main className="blank">
      <div className="stack" role="alert">
        <p className="row magenta">
          <Mark kind="refused" /> Not opened
        </p>
        <h1>{words.title}</h1>
        {at !== null && (
          <p>
            <Moment at={at} named />
          </p>
        )}
        <p>{words.next}</p>
        <p className="quiet">
          You are here as <b>{address}</b>.
        </p>
        {reason !== 'not-addressed' && reason !== 'identity-not-proven' && more}
        <div className="row above-10">
          {sender !== null && (
            <Button
              component="a"
              href={`mailto:${sender.email}?subject=${encodeURIComponent('About the document you sent me')}`}
            >
              Write to {sender.name}
            </Button>
          )}
          <Button onClick={onLeave}>Use another email address</Button>
          {onBack !== null && <Button onClick={onBack}>Back to the list</Button>}
        </div>
      </div>
    </main>
  );
}

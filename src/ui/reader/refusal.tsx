'use client';

import type { ReactNode } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { RefusalReason } from '@/core/policy/decide';
import { RefusalMoment } from '@/ui/reader/refusal-moment';
import { Mark } from '@/ui/marks/mark';
import { UsePasskey } from '@/ui/reader/use-passkey';
import { useWords } from '@/ui/words/use-words';

/** Says what happened and what the person can do, and nothing about anybody else. */
export function Refusal({
  reason,
  at,
  address,
  sender,
  onLeave,
  onBack,
  onAgain,
  more,
}: {
  readonly reason: RefusalReason;
  /** When it ended or will begin, where that is known. */ readonly at: number | null;
  readonly address: string;
  readonly sender: { readonly name: string; readonly email: string } | null;
  readonly onLeave: () => void;
  readonly onBack: (() => void) | null;
  /** Opens it again, once what was lacking is there. */ readonly onAgain: (() => void) | null;
  /** A way to ask for more, shown where time may help. */ readonly more: ReactNode;
}) {
  const { say } = useWords();
  return (
    <main className="blank">
      <div className="stack" role="alert">
        <p className="row magenta">
          <Mark kind="refused" /> {say('refusal.notOpened')}
        </p>
        <h1>{say(`reasons.${reason}.title`)}</h1>
        {at !== null && (
          <p>
            <RefusalMoment reason={reason} at={at} />
          </p>
        )}
        <p>{say(`reasons.${reason}.next`)}</p>
        <p className="quiet">
          {say.rich('shared.hereAsBold', { address, b: (text) => <b>{text}</b> })}
        </p>
        {reason === 'passkey-needed' && onAgain !== null && <UsePasskey onDone={onAgain} />}
        {reason !== 'not-addressed' && reason !== 'identity-not-proven' && more}
        <div className="row above-10">
          {sender !== null && (
            <Button
              component="a"
              href={`mailto:${sender.email}?subject=${encodeURIComponent(say('refusal.mailSubject'))}`}
            >
              {say('refusal.writeTo', { name: sender.name })}
            </Button>
          )}
          <Button onClick={onLeave}>{say('prove.other')}</Button>

          {onBack === null ? (
            <Button component={Link} href="/r/sent" prefetch={false}>
              {say('prove.everything')}
            </Button>
          ) : (
            <Button onClick={onBack}>{say('refusal.back')}</Button>
          )}
        </div>
      </div>
    </main>
  );
}

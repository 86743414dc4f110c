'use client';

import Link from 'next/link';
import type { GrantRow } from '@/contracts/dispatch';
import { counted } from '@/core/base/counted';
import type { GrantState } from '@/ui/grants/grant-words';
import { ReadingRecord } from '@/ui/grants/reading-record';
import { TakeFile } from '@/ui/grants/take-file';
import { useHolds } from '@/ui/shell/permissions';
import { Moment } from '@/ui/time/moment';
import { linkWords } from '@/ui/words/addressee-words';

function opensText({ opens, refusals }: GrantRow): string {
  if (opens > 0) return counted(opens, 'open');
  return refusals > 0 ? 'Never opened. Tried to open and was refused.' : 'Never opened.';
}

/** How often it was opened, and what was printed. */
export function GrantOpens({ grant }: { readonly grant: GrantRow }) {
  const readsRecord = useHolds('read-own-record');
  const { lastOpen, prints, printsMade, recipientId, documentId } = grant;
  return (
    <>
      <h2>Opens</h2>
      <p>
        {opensText(grant)}
        {lastOpen !== null && (
          <>
            , last <Moment at={lastOpen} />
          </>
        )}
      </p>
      {readsRecord && grant.opens > 0 && (
        <ReadingRecord document={documentId} recipient={recipientId} />
      )}
      {prints !== null && (
        <p>
          {printsMade} of {prints} print renditions made.
        </p>
      )}
      {readsRecord && (
        <p>
          <Link href={`/ledger?recipient=${recipientId}&document=${documentId}`}>
            Show in ledger
          </Link>
        </p>
      )}
    </>
  );
}

/** Its link, and the protected file made for it. */
export function GrantLink({
  grant,
  state,
}: {
  readonly grant: GrantRow;
  readonly state: GrantState;
}) {
  const isOver = state === 'destroyed' || state === 'document-revoked';
  return (
    <>
      <h2>Link</h2>
      <p className="quiet">{linkWords(grant)}</p>
      {grant.link === '' ? (
        <p className="quiet">Only the person who made this link can see it.</p>
      ) : (
        <code className="key-text">{grant.link}</code>
      )}
      {grant.mayChange && !isOver && <TakeFile of={grant} label="Download protected file" />}
    </>
  );
}

'use client';

import Link from 'next/link';
import Button from '@mui/material/Button';
import type { LedgerRow } from '@/contracts/ledger';
import type { Words } from '@/core/insight/fact-words';
import { RevokeScope } from '@/ui/grants/revoke-scope';
import { SaidLine } from '@/ui/shell/said-line';
import { useChanges } from '@/ui/grants/use-changes';
import { useHolds } from '@/ui/shell/permissions';
import { AskWhy } from '@/ui/why/ask-why';

/** What an entry leaves for somebody to deal with on Today. */
const LEFT_FOR_TODAY: ReadonlySet<string> = new Set([
  'request.asked',
  'request.replied',
  'consent.asked',
  'destruction.asked',
  'mail.failed',
  'mail.returned',
]);

/** What one may want to do about an entry: pull back, stop, ask, answer. */
export function EntryActs({ row, words }: { readonly row: LedgerRow; readonly words: Words }) {
  const changes = useChanges();
  const mayChange = useHolds('change-access');
  const blocks = useHolds('block');
  const { recipient, document, dispatch } = row;
  return (
    <div className="stack">
      {document !== null && recipient !== null && (
        <AskWhy key={row.sequence} recipient={recipient} document={document} label="Why?" />
      )}
      <div className="row">
        {mayChange && document !== null && recipient !== null && (
          <RevokeScope
            key={row.sequence}
            scope={{ kind: 'person-on-document', recipient, document }}
            label="Revoke…"
            title={`Revoke “${words.nameOf(document)}” for ${words.nameOf(recipient)}?`}
            changes={changes}
          />
        )}
        {LEFT_FOR_TODAY.has(row.action) && (
          <Button component={Link} prefetch={false} href="/today">
            Show on Today
          </Button>
        )}
        {recipient !== null && (
          <Button component={Link} prefetch={false} href={`/people?person=${recipient}`}>
            {blocks ? 'Show person' : 'Show person'}
          </Button>
        )}
        {document !== null && (
          <Button component={Link} prefetch={false} href={`/documents/${document}`}>
            Show document
          </Button>
        )}
        {dispatch !== null && (
          <Button component={Link} prefetch={false} href={`/dispatches/${dispatch}`}>
            Show dispatch
          </Button>
        )}
      </div>
      <SaidLine changes={changes} />
    </div>
  );
}

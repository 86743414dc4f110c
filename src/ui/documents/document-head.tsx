'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { DocumentId } from '@/core/base/ids';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { Confirmation } from '@/ui/shell/confirmation';
import { MoreMenu } from '@/ui/shell/more-menu';
import { useHolds } from '@/ui/shell/permissions';

/** Name and state of one document, with revoking it for everybody. */
export function DocumentHead({
  id,
  title,
  reference,
  summary,
  revoked,
  someRevoked,
  damaged,
  mayChange,
  people,
}: {
  readonly id: DocumentId;
  readonly title: string;
  readonly reference: string;
  readonly summary: string;
  readonly revoked: boolean;
  /** Some of what was given of it was revoked. */ readonly someRevoked: boolean;
  readonly damaged: boolean;
  readonly mayChange: boolean;
  readonly people: readonly string[];
}) {
  const readsRecord = useHolds('read-own-record');
  const readsAll = useHolds('read-record');
  const [asking, setAsking] = useState(false);
  const { busy, problem, attempt } = useAttempt();
  const act = async (verb: 'revoke' | 'reinstate', reason: string) => {
    await attempt(() => call('POST', `/api/v1/documents/${id}/${verb}`, { reason }));
    setAsking(false);
  };
  return (
    <>
      <div className="row">
        <h1>{title}</h1>
        <span className="figure quiet">{reference}</span>
        {revoked && <b className="magenta">revoked</b>}
        <span className="gap" />
        {mayChange && (
          <Button component={Link} href={`/compose?document=${id}`}>
            Dispatch
          </Button>
        )}
        {mayChange &&
          (revoked ? (
            <Button disabled={busy} onClick={() => void act('reinstate', '')}>
              Reinstate
            </Button>
          ) : (
            <Button
              color="error"
              onClick={() => {
                setAsking(true);
              }}
            >
              Revoke document…
            </Button>
          ))}
        <MoreMenu
          items={[
            mayChange ? { label: 'Open as a check', href: `/documents/${id}/check` } : null,
            readsRecord ? { label: 'Show in ledger', href: `/ledger?document=${id}` } : null,
            readsRecord ? { label: 'Opens by person', href: `/ledger/opens?document=${id}` } : null,
            (mayChange || readsAll) && (revoked || someRevoked)
              ? { label: 'After the revocation', href: `/documents/${id}/after` }
              : null,
          ]}
        />
      </div>
      <div className="quiet above-4">{summary}</div>
      {damaged && (
        <p role="alert" className="magenta">
          The stored content of this document is damaged and cannot be read whole. Restore it from a
          backup, or add the file as a new version.
        </p>
      )}
      {problem !== null && (
        <p role="alert" className="magenta">
          {problem}
        </p>
      )}
      <Confirmation
        open={asking}
        busy={busy}
        title={`Revoke “${title}” for everybody?`}
        action="Revoke document"
        onClose={() => {
          setAsking(false);
        }}
        onConfirm={(reason) => void act('revoke', reason)}
      >
        <p>
          {people.length === 0
            ? 'Nobody holds access to it.'
            : `Shut out at once: ${people.join(', ')}.`}
        </p>
        <p>
          The grants stay as they are, so reinstating brings everything back. Prints and kept copies
          are not affected.
        </p>
      </Confirmation>
    </>
  );
}

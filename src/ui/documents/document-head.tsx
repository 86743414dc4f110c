'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { DocumentDetail } from '@/contracts/document-detail';
import { counted } from '@/core/base/counted';
import { ReadsOnNote } from '@/ui/grants/reads-on-note';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';
import { Confirmation } from '@/ui/shell/confirmation';
import { MoreMenu, type MoreItem } from '@/ui/shell/more-menu';
import { Note, Problem } from '@/ui/shell/notice';
import { useHolds } from '@/ui/shell/permissions';

type Props = {
  readonly detail: DocumentDetail;
  readonly summary: string;
  /** Who can open it now. */
  readonly people: readonly string[];
};

/** Name and state of one document, with revoking it for everybody. */
export function DocumentHead({ detail, summary, people }: Props) {
  const { id, title, reference, damaged, waiting, mayChange } = detail;
  return (
    <>
      <div className="row">
        <h1>{title}</h1>
        <span className="figure quiet">{reference}</span>
        {detail.revokedAt !== null && <b className="magenta">revoked</b>}
        <span className="gap" />
        {mayChange && (
          <Button component={Link} href={`/compose?document=${id}`}>
            Dispatch
          </Button>
        )}
        {mayChange && <RevokeDocument detail={detail} people={people} />}
        <DocumentMore detail={detail} />
      </div>
      <div className="quiet above-4">{summary}</div>
      {waiting > 0 && (
        <Note>
          <Link href={`/documents/${id}/revisions`}>
            {counted(waiting, 'changed file')} sent back: compare and answer
          </Link>
        </Note>
      )}
      {damaged && (
        <Note tone="stops" role="alert">
          The stored content of this document is damaged and cannot be read whole. Restore it from a
          backup, or add the file as a new version.
        </Note>
      )}
    </>
  );
}

function DocumentMore({
  detail: { id, mayChange, revokedAt, grants },
}: {
  readonly detail: DocumentDetail;
}) {
  const readsRecord = useHolds('read-own-record');
  const readsAll = useHolds('read-record');
  const isRevoked = revokedAt !== null || grants.some((grant) => grant.revokedAt !== null);
  const items: readonly (MoreItem | false)[] = [
    mayChange && { label: 'Open as a check', href: `/documents/${id}/check` },
    mayChange && { label: 'Comments', href: `/documents/${id}/comments` },
    mayChange && { label: 'Changed files', href: `/documents/${id}/revisions` },
    mayChange && { label: 'Copies on paper', href: `/documents/${id}/paper` },
    readsRecord && { label: 'Show in ledger', href: `/ledger?document=${id}` },
    readsRecord && { label: 'Opens by person', href: `/ledger/opens?document=${id}` },
    (mayChange || readsAll) &&
      isRevoked && { label: 'After the revocation', href: `/documents/${id}/after` },
  ];
  return <MoreMenu items={items} />;
}

function revokedWords(people: readonly string[], readsOn: DocumentDetail['readsOn']): string {
  if (people.length === 0) return 'Nobody holds access to it.';
  const reading = new Set(readsOn.map(({ name }) => name));
  const out = people.filter((name) => !reading.has(name));
  return out.length === 0 ? 'Nobody is shut out at once.' : `Shut out at once: ${out.join(', ')}.`;
}

/** Revokes the whole document, or reinstates it; names whom it hits. */
function RevokeDocument({
  detail: { id, title, revokedAt, readsOn },
  people,
}: Omit<Props, 'summary'>) {
  const [asking, setAsking] = useState(false);
  const { busy, problem, attempt } = useAttempt();
  const revoke = async (reason: string) => {
    await attempt(() => api('POST /api/v1/documents/:id/revoke', { id, reason }));
    setAsking(false);
  };
  return (
    <>
      {revokedAt === null ? (
        <Button
          color="error"
          onClick={() => {
            setAsking(true);
          }}
        >
          Revoke document…
        </Button>
      ) : (
        <Button
          disabled={busy}
          onClick={() => void attempt(() => api('POST /api/v1/documents/:id/reinstate', { id }))}
        >
          Reinstate
        </Button>
      )}
      <Problem words={problem} />
      <Confirmation
        open={asking}
        busy={busy}
        title={`Revoke “${title}” for everybody?`}
        action="Revoke document"
        onClose={() => {
          setAsking(false);
        }}
        onConfirm={(reason) => void revoke(reason)}
      >
        <p>{revokedWords(people, readsOn)}</p>
        <ReadsOnNote people={readsOn} />
        <p>
          The grants stay as they are, so reinstating brings everything back. Prints and kept copies
          are not affected.
        </p>
      </Confirmation>
    </>
  );
}

'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { DispatchDetail } from '@/contracts/dispatch';
import { counted } from '@/core/base/counted';
import { AddDocuments } from '@/ui/dispatches/add-documents';
import { AddPeople } from '@/ui/dispatches/add-people';
import { ifRevokedText } from '@/ui/dispatches/if-revoked';
import { RevokeScope } from '@/ui/grants/revoke-scope';
import { useChanges } from '@/ui/grants/use-changes';
import { MoreMenu } from '@/ui/shell/more-menu';
import { useHolds } from '@/ui/shell/permissions';
import { SaidLine } from '@/ui/shell/said-line';
import { Moment } from '@/ui/time/moment';
import { audienceOf } from '@/ui/words/addressee-words';

type Props = { readonly detail: DispatchDetail; readonly now: number };

/** What a dispatch is, to how many, and what can be done with it as a whole. */
export function DispatchHead({ detail, now }: Props) {
  const [adding, setAdding] = useState<'people' | 'documents' | null>(null);
  const close = () => {
    setAdding(null);
  };
  const changes = useChanges();
  const documents = new Set(detail.grants.map((grant) => grant.documentId)).size;
  const mayChange = detail.grants.some((grant) => grant.mayChange);
  return (
    <>
      <div className="row">
        <h1>{detail.subject}</h1>
        <span className="figure quiet">{detail.reference}</span>
        <span className="gap" />
        {detail.mayAdd &&
          (['people', 'documents'] as const).map((what) => (
            <Button
              key={what}
              aria-expanded={adding === what}
              onClick={() => {
                setAdding(adding === what ? null : what);
              }}
            >
              {adding === what ? 'Close' : `Add ${what}`}
            </Button>
          ))}
        {mayChange && (
          <RevokeScope
            scope={{ kind: 'dispatch', dispatch: detail.id }}
            label="Revoke all…"
            title={`Revoke everything given by ${detail.reference}?`}
            changes={changes}
          />
        )}
        <DispatchMore detail={detail} mayChange={mayChange} />
      </div>
      <div className="row loose quiet above-4">
        <span>
          {counted(documents, 'document')} · {audienceOf(detail.grants)}
        </span>
        <span>
          sent <Moment at={detail.sentAt} /> by {detail.sentBy}
        </span>
      </div>
      <SaidLine changes={changes} />
      {detail.ifRevoked !== null && <p className="quiet">{ifRevokedText(detail.ifRevoked)}</p>}
      {adding === 'people' && <AddPeople detail={detail} now={now} onDone={close} />}
      {adding === 'documents' && <AddDocuments detail={detail} now={now} onDone={close} />}
    </>
  );
}

function DispatchMore({
  detail: { id, grants, mayAdd },
  mayChange,
}: {
  readonly detail: DispatchDetail;
  readonly mayChange: boolean;
}) {
  const readsRecord = useHolds('read-own-record');
  const readsAll = useHolds('read-record');
  const composes = useHolds('dispatch') && mayAdd;
  const anyRevoked = grants.some(({ revokedAt }) => revokedAt !== null);
  return (
    <MoreMenu
      items={[
        anyRevoked &&
          (mayChange || readsAll) && {
            label: 'After the revocation',
            href: `/dispatches/${id}/after`,
          },
        readsRecord && { label: 'Show in ledger', href: `/ledger?dispatch=${id}` },
        readsRecord && { label: 'Opens by person', href: `/ledger/opens?dispatch=${id}` },
        composes && {
          label: 'Send the same again',
          href: `/compose?again=${id}`,
        },
        composes && {
          label: 'Compose for its people',
          href: `/compose?again=${id}&take=people`,
        },
        composes && {
          label: 'Compose on its terms',
          href: `/compose?again=${id}&take=terms`,
        },
        { label: 'Export as ODRL', href: `/api/v1/dispatches/${id}/odrl`, download: true },
      ]}
    />
  );
}

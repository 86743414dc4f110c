'use client';

import { counted } from '@/core/base/counted';
import { useState } from 'react';
import Link from 'next/link';
import { Note } from '@/ui/shell/notice';
import { AccessThenPanel } from '@/ui/access-then/access-then-panel';
import Button from '@mui/material/Button';
import type { RevokeEffect } from '@/contracts/access';
import type { DispatchDetail } from '@/contracts/dispatch';
import { carriesFile, carriesLink, isInTheClear } from '@/core/policy/delivery';
import { closesText } from '@/ui/grants/revoke-words';
import { AddPeople } from '@/ui/dispatches/add-people';
import { GrantsTable } from '@/ui/grants/grants-table';
import { LinesSurface } from '@/ui/dispatches/lines-surface';
import { ToCarry } from '@/ui/dispatches/to-carry';
import { RevokeScope } from '@/ui/grants/revoke-scope';
import { SaidLine } from '@/ui/shell/said-line';
import { useChanges } from '@/ui/grants/use-changes';
import { MoreMenu } from '@/ui/shell/more-menu';
import { useHolds } from '@/ui/shell/permissions';
import { audienceOf } from '@/ui/words/addressee-words';
import { Moment } from '@/ui/time/moment';

/** What revoking would do, in one line. */
function ifRevokedText({
  shutOut,
  closes,
  stillReads,
  openLinks,
  printsMade,
  keptBy,
  textSentTo,
}: RevokeEffect): string {
  const out = [
    ...closesText(closes),
    ...(shutOut.length === 0 ? [] : [counted(shutOut.length, 'person', 'people')]),
  ];
  const still = new Set(stillReads.map(({ recipient }) => recipient)).size;
  const parts = [
    out.length === 0 ? null : `${out.join(', ')} shut out at once`,
    still === 0
      ? null
      : `${counted(still, 'person still reads', 'people still read')} by another way`,
    openLinks.length === 0 ? null : 'open to anyone with another link',
    printsMade + keptBy + textSentTo === 0 ? null : 'prints or copies stay where they are',
  ].filter((part) => part !== null);
  return parts.length === 0 ? 'Nobody can open it now.' : `If revoked: ${parts.join(', ')}.`;
}

/** One sending: to whom, with which rights, until when. */
export function DispatchView({
  detail,
  now,
}: {
  readonly detail: DispatchDetail;
  readonly now: number;
}) {
  const readsRecord = useHolds('read-own-record');
  const readsAll = useHolds('read-record');
  const changes = useChanges();
  const [adding, setAdding] = useState(false);
  const mayChange = detail.grants.some((grant) => grant.mayChange);
  const anyRevoked = detail.grants.some(({ revokedAt }) => revokedAt !== null);
  const documents = new Set(detail.grants.map((grant) => grant.documentId)).size;
  return (
    <LinesSurface
      head={
        <>
          <div className="row">
            <h1>{detail.subject}</h1>
            <span className="figure quiet">{detail.reference}</span>
            <span className="gap" />
            {detail.mayAdd && (
              <Button
                aria-expanded={adding}
                onClick={() => {
                  setAdding(!adding);
                }}
              >
                {adding ? 'Close' : 'Add people'}
              </Button>
            )}
            {mayChange && (
              <RevokeScope
                scope={{ kind: 'dispatch', dispatch: detail.id }}
                label="Revoke all…"
                title={`Revoke everything given by ${detail.reference}?`}
                changes={changes}
              />
            )}
            <MoreMenu
              items={[
                anyRevoked && (mayChange || readsAll)
                  ? { label: 'After the revocation', href: `/dispatches/${detail.id}/after` }
                  : null,
                readsRecord
                  ? { label: 'Show in ledger', href: `/ledger?dispatch=${detail.id}` }
                  : null,
                readsRecord
                  ? { label: 'Opens by person', href: `/ledger/opens?dispatch=${detail.id}` }
                  : null,
                {
                  label: 'Export as ODRL',
                  href: `/api/v1/dispatches/${detail.id}/odrl`,
                  download: true,
                },
              ]}
            />
          </div>
          <div className="row quiet" style={{ marginTop: 4, gap: 18 }}>
            <span>
              {counted(documents, 'document', 'documents')} · {audienceOf(detail.grants)}
            </span>
            <span>
              sent <Moment at={detail.sentAt} /> by {detail.sentBy}
            </span>
            <SaidLine changes={changes} />
          </div>
          {detail.ifRevoked !== null && <p className="quiet">{ifRevokedText(detail.ifRevoked)}</p>}
          {adding && (
            <AddPeople
              detail={detail}
              now={now}
              onDone={() => {
                setAdding(false);
              }}
            />
          )}
        </>
      }
      grants={detail.grants}
      marks={detail.marks}
      now={now}
      rows={(selected, onSelect) => (
        <GrantsTable
          grants={detail.grants}
          now={now}
          showDocument={documents > 1}
          selected={selected}
          onSelect={onSelect}
        />
      )}
      aside={<DispatchAside detail={detail} severalDocuments={documents > 1} />}
    />
  );
}

/** At the side of a dispatch: what is asked, what is handed over, the message and past access. */
function DispatchAside({
  detail,
  severalDocuments,
}: {
  readonly detail: DispatchDetail;
  readonly severalDocuments: boolean;
}) {
  // Who came in along with others has their link already.
  const carried = detail.grants.filter(({ kind, parent }) =>
    detail.delivery === 'by-hand' ? parent === null : kind === 'domain' || kind === 'link',
  );
  const { waiting, delivered, failed } = detail.mail;
  return (
    <div className="stack">
      {detail.requests > 0 && (
        <Note>
          {detail.requests === 1
            ? 'One recipient asks'
            : `Recipients ask ${String(detail.requests)} times`}{' '}
          for something. <Link href="/today">Answer on Today</Link>
        </Note>
      )}
      {isInTheClear(detail.form) && (
        <Note>
          Sent unprotected. What was mailed stays with the recipients; revoking only closes access
          here.{detail.reason !== '' && ` Why: “${detail.reason}”`}
        </Note>
      )}
      {carried.length > 0 && (
        <>
          <ToCarry grants={carried} form={detail.form} />
          <hr />
        </>
      )}
      <h2>The message</h2>
      {carriesFile(detail.form) && detail.delivery === 'mail' && (
        <p>
          {carriesLink(detail.form)
            ? 'The link, and the documents as protected files.'
            : 'The documents as protected files.'}
        </p>
      )}
      <p>
        {[
          delivered > 0 ? `${String(delivered)} delivered` : null,
          waiting > 0 ? `${String(waiting)} on the way` : null,
          failed > 0 ? `${String(failed)} not delivered` : null,
        ]
          .filter((part) => part !== null)
          .join(', ') ||
          (detail.delivery === 'by-hand'
            ? 'Nothing is mailed: you hand it over.'
            : 'Nothing was mailed.')}
      </p>
      {detail.note !== '' && <p className="quiet keep-lines">{detail.note}</p>}
      <h2>Watermark</h2>
      <p className="figure">{detail.watermark === '' ? 'none' : detail.watermark}</p>
      <hr />
      <AccessThenPanel of={{ dispatch: detail.id }} names={severalDocuments ? 'both' : 'people'} />
    </div>
  );
}

'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { GrantRow } from '@/contracts/dispatch';
import { useHolds } from '@/ui/shell/permissions';
import { Moment } from '@/ui/time/moment';
import { distanceText, momentText } from '@/core/base/moment-text';
import { verbList } from '@/ui/words/rights-words';
import { ConditionsFields } from '@/ui/terms-fields/conditions-fields';
import { TakeFile } from '@/ui/grants/take-file';
import { SaidLine } from '@/ui/shell/said-line';
import { useChanges } from '@/ui/grants/use-changes';
import { conditionLines } from '@/core/policy/condition-lines';
import { standsForMany } from '@/core/policy/addressee';
import { AskWhy } from '@/ui/why/ask-why';
import { linkWords, whoWords } from '@/ui/words/addressee-words';
import { personName, stateOf, underCeilings, type GrantState } from '@/ui/grants/grant-words';
import { MomentField } from '@/ui/time/moment-field';

function answer(grant: GrantRow, state: GrantState, now: number): string {
  const may = verbList(grant.rights);
  switch (state) {
    case 'live':
      return grant.until === null
        ? `May ${may}, with no end.`
        : `May ${may}, ending ${distanceText(grant.until, now)}.`;
    case 'not-yet':
      return `May ${may}, but not yet.`;
    case 'expired':
      return `Access ended ${distanceText(grant.until ?? now, now)}.`;
    case 'revoked':
      return 'Revoked.';
    case 'blocked':
      return 'Shut out because this person is blocked.';
    case 'destroyed':
      return 'Shut out for good: the document’s key was destroyed.';
    case 'document-revoked':
      return 'Shut out, because the whole document is revoked.';
  }
}

/** Explains one grant: what it is now, why, and what can be changed. */
export function GrantPanel({ grant, now }: { readonly grant: GrantRow; readonly now: number }) {
  const state = stateOf(grant, now);
  const readsRecord = useHolds('read-own-record');
  const { until } = underCeilings(grant);
  return (
    <div className="stack">
      <h2>
        {personName(grant)}
        {grant.organisation === '' ? '' : ` · ${grant.organisation}`}
      </h2>
      <p className="answer">{answer(underCeilings(grant), state, now)}</p>
      <p className="quiet">
        {grant.documentTitle} <span className="figure">{grant.documentReference}</span>
      </p>
      {until !== null && grant.zone !== null && (
        <p className="quiet">
          In their zone, it ends <span className="figure">{momentText(until, grant.zone)}</span> (
          {grant.zone}).
        </p>
      )}
      {conditionLines(grant.conditions, grant.zone ?? 'the organisation’s zone').map((line) => (
        <p key={line} className="quiet">
          Opens {line.replace(/^opens /, '')}.
        </p>
      ))}
      <p className="quiet">
        Given <Moment at={grant.givenAt} />
        {grant.revokedAt !== null && (
          <>
            , revoked <Moment at={grant.revokedAt} />
          </>
        )}
        .
      </p>
      {standsForMany(grant.kind) && (
        <p className="quiet">
          {whoWords[grant.kind]}. A change here also changes everybody below it who was not changed
          separately. Revoking it shuts all of them out.
        </p>
      )}
      {!standsForMany(grant.kind) && grant.passedOnBy !== null && (
        <p className="quiet">
          Passed on by {grant.passedOnBy}. It never exceeds theirs and ends with it.
        </p>
      )}
      {!standsForMany(grant.kind) && grant.passedOnBy === null && grant.parent !== null && (
        <p className="quiet">From a grant to many. It changes with it until it is changed here.</p>
      )}
      <AskWhy
        key={grant.id}
        recipient={grant.recipientId}
        document={grant.documentId}
        label="Why?"
      />
      <hr />
      <h2>Opens</h2>
      <p>
        {grant.opens === 0
          ? grant.refusals > 0
            ? 'Never opened. Tried to open and was refused.'
            : 'Never opened.'
          : `${String(grant.opens)} ${grant.opens === 1 ? 'open' : 'opens'}`}
        {grant.lastOpen !== null && (
          <>
            , last <Moment at={grant.lastOpen} />
          </>
        )}
      </p>
      {grant.prints !== null && (
        <p>
          {grant.printsMade} of {grant.prints} print renditions made.
        </p>
      )}
      {readsRecord && (
        <p>
          <Link href={`/ledger?recipient=${grant.recipientId}&document=${grant.documentId}`}>
            Show in ledger
          </Link>
        </p>
      )}
      <hr />
      {grant.mayChange ? (
        <>
          <ChangeEnd key={grant.id} grant={grant} />
          <ChangeConditions key={`${grant.id} ${String(grant.revision)}`} grant={grant} />
        </>
      ) : (
        <p className="quiet">
          Only the sender, the document’s owner or an administrator can change this.
        </p>
      )}
      <hr />
      <h2>Link</h2>
      <p className="quiet">{linkWords(grant)}</p>
      {grant.link === '' ? (
        <p className="quiet">Only the person who made this link can see it.</p>
      ) : (
        <code className="key-text">{grant.link}</code>
      )}
      {grant.mayChange && state !== 'destroyed' && state !== 'document-revoked' && (
        <TakeFile grant={grant} label="Download protected file" />
      )}
    </div>
  );
}

function ChangeConditions({ grant }: { readonly grant: GrantRow }) {
  const changes = useChanges();
  const [conditions, setConditions] = useState(grant.conditions ?? undefined);
  const changed = JSON.stringify(conditions ?? null) !== JSON.stringify(grant.conditions);
  return (
    <div className="stack">
      <ConditionsFields value={conditions} onChange={setConditions} />
      {changed && (
        <div className="row">
          <Button
            disabled={changes.busy}
            onClick={() => void changes.setConditions([grant], conditions ?? null)}
          >
            Change the conditions
          </Button>
        </div>
      )}
      <SaidLine changes={changes} />
    </div>
  );
}

function ChangeEnd({ grant }: { readonly grant: GrantRow }) {
  const changes = useChanges();
  const [until, setUntil] = useState(grant.until);
  return (
    <div className="stack">
      <h2>End</h2>
      <MomentField label="Access ends" value={until} onChange={setUntil} none="No end" />
      <div className="row">
        <Button
          disabled={until === grant.until || changes.busy}
          onClick={() => void changes.moveEnds([grant], until)}
        >
          Change the end
        </Button>
        <span className="quiet">Takes effect at once. Nothing is mailed.</span>
      </div>
      <SaidLine changes={changes} />
    </div>
  );
}

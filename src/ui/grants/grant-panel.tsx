'use client';

import type { GrantRow } from '@/contracts/dispatch';
import { conditionLines } from '@/core/policy/condition-lines';
import { standsForMany } from '@/core/policy/addressee';
import { distanceText, momentText } from '@/core/base/moment-text';
import { GrantChanges } from '@/ui/grants/grant-changes';
import { GrantLink, GrantOpens } from '@/ui/grants/grant-parts';
import { personName, stateOf, underCeilings, type GrantState } from '@/ui/grants/grant-words';
import { ReadingAids } from '@/ui/grants/reading-aids';
import { Moment } from '@/ui/time/moment';
import { AskWhy } from '@/ui/why/ask-why';
import { whoWords } from '@/ui/words/addressee-words';
import { verbList } from '@/ui/words/rights-words';

const answers: Record<GrantState, (grant: GrantRow, now: number) => string> = {
  live: ({ rights, until }, now) =>
    until === null
      ? `May ${verbList(rights)}, with no end.`
      : `May ${verbList(rights)}, ending ${distanceText(until, now)}.`,
  'not-yet': ({ rights }) => `May ${verbList(rights)}, but not yet.`,
  expired: ({ until }, now) => `Access ended ${distanceText(until ?? now, now)}.`,
  revoked: () => 'Revoked.',
  blocked: () => 'Shut out because this person is blocked.',
  destroyed: () => 'Shut out for good: the document’s key was destroyed.',
  'document-revoked': () => 'Shut out, because the whole document is revoked.',
};

/** Explains one grant: what it is now, why, and what can be changed. */
export function GrantPanel({ grant, now }: { readonly grant: GrantRow; readonly now: number }) {
  const state = stateOf(grant, now);
  return (
    <div className="stack">
      <h2>
        {personName(grant)}
        {grant.organisation === '' ? '' : ` · ${grant.organisation}`}
      </h2>
      <p className="answer">{answers[state](underCeilings(grant), now)}</p>
      <p className="quiet">
        {grant.documentTitle} <span className="figure">{grant.documentReference}</span>
      </p>
      <GrantTerms grant={grant} />
      <Origin grant={grant} />
      <AskWhy
        key={grant.id}
        recipient={grant.recipientId}
        document={grant.documentId}
        label="Why?"
      />
      <hr />
      <GrantOpens grant={grant} />
      <hr />
      <ReadingAids key={`aids ${grant.id}`} grant={grant} />
      {grant.mayChange ? (
        <GrantChanges grant={grant} />
      ) : (
        <p className="quiet">
          Only the sender, the document’s owner or an administrator can change this.
        </p>
      )}
      <hr />
      <GrantLink grant={grant} state={state} />
    </div>
  );
}

/** Its end by the clock of the recipient, its conditions, and when it was given. */
function GrantTerms({ grant }: { readonly grant: GrantRow }) {
  const { until } = underCeilings(grant);
  const { zone, conditions, givenAt, revokedAt } = grant;
  return (
    <>
      {until !== null && zone !== null && (
        <p className="quiet">
          In their zone, it ends <span className="figure">{momentText(until, zone)}</span> ({zone}
          ).
        </p>
      )}
      {conditionLines(conditions, zone ?? 'the organisation’s zone').map((line) => (
        <p key={line} className="quiet">
          Opens {line.replace(/^opens /, '')}.
        </p>
      ))}
      <p className="quiet">
        Given <Moment at={givenAt} />
        {revokedAt !== null && (
          <>
            , revoked <Moment at={revokedAt} />
          </>
        )}
        .
      </p>
    </>
  );
}

/** Whether it is for many, was passed on, or comes from one for many. */
function Origin({ grant: { kind, passedOnBy, parent } }: { readonly grant: GrantRow }) {
  if (standsForMany(kind))
    return (
      <p className="quiet">
        {whoWords[kind]}. A change here also changes everybody below it who was not changed
        separately. Revoking it shuts all of them out.
      </p>
    );
  if (passedOnBy !== null)
    return (
      <p className="quiet">Passed on by {passedOnBy}. It never exceeds theirs and ends with it.</p>
    );
  if (parent === null) return null;
  return (
    <p className="quiet">From a grant to many. It changes with it until it is changed here.</p>
  );
}

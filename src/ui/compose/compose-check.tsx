'use client';

import { bareDomain } from '@/core/policy/address';
import type { DefaultsRow } from '@/contracts/defaults';
import type { DocumentRow } from '@/contracts/document';
import type { GroupRow } from '@/contracts/people';
import { counted } from '@/core/base/counted';
import { conditionLines } from '@/core/policy/condition-lines';
import { carriesFile, carriesLink, isInTheClear, type DeliveryForm } from '@/core/policy/delivery';
import type { Right } from '@/core/policy/rights';
import { Note } from '@/ui/shell/notice';
import { ceilingWarnings, type CeilingsKnown } from '@/ui/compose/ceiling-warnings';
import type { TermsDraft } from '@/ui/terms-fields/switch-right';
import { termsSets, type TermsSet } from '@/ui/compose/terms-sets';
import type { DomainDraft, RecipientDraft } from '@/ui/recipients/use-recipients';
import { WatermarkSamples } from '@/ui/compose/watermark-samples';
import { distanceText, momentText, zoneName } from '@/core/base/moment-text';
import { useZone } from '@/ui/time/use-zone';
import { verbList } from '@/ui/words/rights-words';

/** What is addressed as a whole, and whether the rest is mailed. */
export type Wider = {
  readonly domains: readonly DomainDraft[];
  readonly groups: readonly GroupRow[];
  readonly openLink: boolean;
  readonly mailed: boolean;
};

type Props = {
  readonly ceilings: CeilingsKnown;
  /** What levels around each document put on its pages. */
  readonly around: readonly (readonly DefaultsRow[])[];
  readonly form: DeliveryForm;
  readonly documents: readonly DocumentRow[];
  readonly people: readonly RecipientDraft[];
  readonly wider: Wider;
  readonly terms: TermsDraft;
  readonly watermark: string;
  readonly problems: readonly string[];
  readonly now: number;
};

function countText(documents: readonly DocumentRow[]): string {
  return documents.length === 0 ? '' : ` ${counted(documents.length, 'document')}`;
}

function capital(text: string): string {
  return text.replace(/^./, (letter) => letter.toUpperCase());
}

/** What everybody should look at once more before it leaves. */
function doubtsOf(people: readonly RecipientDraft[], sets: readonly TermsSet[]): string[] {
  const blocked = people
    .filter((person) => person.check?.known?.blocked === true)
    .map((person) => person.address);
  const withoutEnd = sets.filter(({ terms }) => terms.until === null).flatMap(({ whom }) => whom);
  const inVain = sets
    .filter(({ terms }) => terms.rights.includes('pass-on') && terms.conditions?.passOn == null)
    .flatMap(({ whom }) => whom);
  return [
    ...people.flatMap(({ address, check }) =>
      check?.looksLike == null
        ? []
        : [`${address} is one letter away from ${check.looksLike}. Is that right?`],
    ),
    ...(blocked.length === 0
      ? []
      : [`Blocked, so they could open nothing: ${blocked.join(', ')}.`]),
    ...(withoutEnd.length === 0
      ? []
      : [sets.length === 1 ? 'This has no end.' : `No end for ${withoutEnd.join(', ')}.`]),
    ...(inVain.length === 0 ? [] : ['Pass on has no effect yet. Say below to how many people.']),
  ];
}

function SetLines({
  set: { terms, whom },
  documents,
  now,
}: {
  readonly set: TermsSet;
  readonly documents: readonly DocumentRow[];
  readonly now: number;
}) {
  const zone = useZone();
  const conditions = conditionLines(terms.conditions, 'their zone');
  return (
    <>
      <p className="answer">
        {capital(whom.join(', '))} may {verbList(terms.rights)}
        {countText(documents)}.
      </p>
      <p>
        {terms.until === null ? (
          <b className="lamp">No end.</b>
        ) : (
          <>
            Until{' '}
            <b>
              {momentText(terms.until, zone)} {zoneName(terms.until, zone)}
            </b>
            , {distanceText(terms.until, now)}.
          </>
        )}
      </p>
      {conditions.length > 0 && (
        <p>It opens {conditions.map((line) => line.replace(/^opens /, '')).join('; ')}.</p>
      )}
    </>
  );
}

function whatStays(gives: (right: Right) => boolean): string {
  if (gives('keep')) return ', except for copies that were kept';
  return gives('print') ? ', except for prints that were made' : '';
}

function HeldByServer({
  form,
  wider,
  isForNobodyElse,
  sets,
}: Pick<Props, 'form' | 'wider'> & {
  readonly isForNobodyElse: boolean;
  readonly sets: readonly TermsSet[];
}) {
  const gives = (right: Right): boolean => sets.some(({ terms }) => terms.rights.includes(right));
  const reader = isForNobodyElse
    ? 'Anyone with the link'
    : 'Each proves their email address with a code, then';
  return (
    <>
      {wider.openLink && (
        <Note>
          The link asks for no proof, so it stays unknown who reads it and how many. It can be
          revoked for everybody who used it.
        </Note>
      )}
      <p className="quiet">
        {reader} reads marked pictures of the pages, held by the server. Every page is checked again
        when it is shown, so if you revoked this, everyone would be shut out <b>at once</b>
        {whatStays(gives)}.
      </p>
      {carriesFile(form) && (
        <p className="quiet">
          The file {carriesLink(form) ? 'beside the link ' : ''}stays with them, encrypted. By
          itself it opens nothing; its first page leads to the same proof. Your clear original stays
          with you. Do not mix them up.
        </p>
      )}
      {gives('keep') && (
        <Note>A copy that is kept stays: neither the end nor a revocation reaches it.</Note>
      )}
    </>
  );
}

function Protected(props: Props) {
  const { ceilings, around, form, documents, people, wider, terms, watermark, now } = props;
  const zone = useZone();
  const sets = termsSets(people, wider, terms);
  // Where nobody is named yet, what the terms come to is said all the same.
  const judged = sets.length === 0 ? [{ terms, whom: ['nobody yet'] }] : sets;
  const isForNobodyElse =
    wider.openLink && people.length + wider.domains.length + wider.groups.length === 0;
  const taken = [
    ...new Set(
      judged.flatMap((set) =>
        ceilingWarnings(documents, set.terms, now, ceilings, (moment) => momentText(moment, zone)),
      ),
    ),
  ];
  const fresh = people.filter(
    (person) => person.check !== null && person.check.known === null,
  ).length;
  return (
    <>
      {sets.length === 0 && <p className="answer">No recipients yet.</p>}
      {sets.map((set) => (
        <SetLines key={set.whom.join()} set={set} documents={documents} now={now} />
      ))}
      {taken.length > 0 && (
        <Note>
          <b>They get less than this.</b>
          {taken.map((text) => (
            <p key={text}>{text}</p>
          ))}
          <p className="quiet">
            The rest is given and takes effect when the ceiling is raised. Ceilings are under Terms.
          </p>
        </Note>
      )}
      {wider.domains.length > 0 && (
        <Note>
          It is unknown how many people are at{' '}
          {wider.domains.map(({ domain }) => bareDomain(domain)).join(', ')}.
          {wider.mailed &&
            ' Nobody there is mailed. Their link is on the dispatch, for you to hand over.'}{' '}
          Each becomes a recipient of their own at the first open, and can be revoked alone.
        </Note>
      )}
      {fresh > 0 && <p className="quiet">{counted(fresh, 'new recipient')}.</p>}
      {doubtsOf(people, judged).map((doubt) => (
        <Note key={doubt}>{doubt}</Note>
      ))}
      <HeldByServer form={form} wider={wider} isForNobodyElse={isForNobodyElse} sets={judged} />
      <hr />
      <WatermarkSamples
        around={around}
        watermark={watermark}
        person={people.at(0) ?? null}
        reference={documents.at(0)?.reference ?? 'reference'}
        now={now}
      />
    </>
  );
}

/** What leaves in the clear has no end, no conditions and no watermark, so none is shown. */
function InTheClear({ people, documents }: Pick<Props, 'people' | 'documents'>) {
  return (
    <>
      <p className="answer">
        {people.length === 0
          ? 'No recipients yet.'
          : `${counted(people.length, 'person gets', 'people get')}${countText(documents)} in the clear.`}
      </p>
      <Note>
        It leaves in the clear. No end, revocation or watermark reaches it, and anyone who has it
        can copy, print and pass it on. The ledger says to whom it went and why.
      </Note>
      {doubtsOf(people, []).map((doubt) => (
        <Note key={doubt}>{doubt}</Note>
      ))}
    </>
  );
}

/** The consequences of what was composed so far. */
export function ComposeCheck(props: Props) {
  const { form, problems } = props;
  return (
    <div className="stack">
      <h2>What this does</h2>
      {isInTheClear(form) ? (
        <InTheClear people={props.people} documents={props.documents} />
      ) : (
        <Protected {...props} />
      )}
      {problems.length > 0 && (
        <>
          <hr />
          <h2>Fix before sending</h2>
          <ul className="indented">
            {problems.map((problem) => (
              <li key={problem} className="magenta">
                {problem}
              </li>
            ))}
          </ul>
        </>
      )}
    </div>
  );
}

'use client';

import type { DefaultsRow } from '@/contracts/defaults';
import type { DocumentRow } from '@/contracts/document';
import { watermarkUnder } from '@/core/policy/defaults';
import { MAX_WATERMARK, fillTokens, unknownTokens } from '@/core/watermark/tokens';
import { conditionLines } from '@/core/policy/condition-lines';
import { carriesFile, type DeliveryForm } from '@/core/policy/delivery';
import { distanceText, momentText, zoneName } from '@/ui/time/moment-words';
import { useZone } from '@/ui/time/use-zone';
import { verbList } from '@/ui/words/rights-words';
import type { GroupRow } from '@/contracts/people';
import type { DomainDraft, RecipientDraft } from '@/ui/compose/use-recipients';
import { ceilingWarnings, type CeilingsKnown } from '@/ui/compose/ceiling-warnings';
import type { TermsDraft } from '@/ui/compose/switch-right';

/** Documents under different levels differ in what stands on them; so many are shown. */
const MOST_SAMPLES = 3;

/** What is addressed as a whole, and whether the rest is mailed. */
export type Wider = { readonly domains: readonly DomainDraft[]; readonly groups: readonly GroupRow[]; readonly openLink: boolean; readonly mailed: boolean };

type Draft = { readonly documents: readonly DocumentRow[]; readonly people: readonly RecipientDraft[]; readonly wider: Wider; readonly unreadable: readonly string[]; readonly terms: TermsDraft; readonly subject: string; readonly watermark: string; readonly now: number; readonly mail: boolean };

/** What stands in the way of sending, in words; empty: it can go. */
export function problemsOf({ documents, people, wider, unreadable, terms, subject, watermark, now, mail }: Draft): string[] {
  const revoked = documents.find((document) => document.revoked);
  return [
    mail ? null : 'No mail server is set up here: set MAIL_URL and MAIL_FROM and start again.',
    documents.length === 0 ? 'No document is chosen.' : null,
    revoked === undefined ? null : `“${revoked.title}” is revoked: nobody could open it.`,
    !wider.openLink && people.length + wider.domains.length + wider.groups.length === 0 ? 'No recipient is named: nobody could open it.' : null,
    ...wider.domains.filter(({ check }) => check?.publicMail === true).map(({ domain }) => `Anybody can have an address at ${domain.slice(1)}: name the people instead.`),
    unreadable.length === 0 ? null : `Not an address: ${unreadable.slice(0, 5).join(', ')}${unreadable.length > 5 ? ` and ${String(unreadable.length - 5)} more` : ''}.`,
    terms.until !== null && terms.until <= now ? 'The end lies in the past: nobody could open it.' : null,
    terms.until !== null && terms.from !== null && terms.until <= terms.from ? 'The end lies before the start.' : null,
    ...people.flatMap(({ address, terms: own }) => (own?.until != null && own.until <= now ? [`The end for ${address} lies in the past.`] : [])),
    subject.trim() === '' ? 'A subject is needed.' : null,
    watermark.length > MAX_WATERMARK ? 'The watermark is too long.' : null,
    ...unknownTokens(watermark).map((name) => `{${name}} is nothing a watermark can say.`),
  ].filter((problem) => problem !== null);
}

/** The consequences of what was composed so far. */
export function ComposeCheck({ ceilings, around, documents, people, wider, terms, watermark, form, problems, now }: { readonly ceilings: CeilingsKnown; /** What levels around each document put on its pages. */ readonly around: readonly (readonly DefaultsRow[])[]; readonly form: DeliveryForm; readonly documents: readonly DocumentRow[]; readonly people: readonly RecipientDraft[]; readonly wider: Wider; readonly terms: TermsDraft; readonly watermark: string; readonly problems: readonly string[]; readonly now: number }) {
  const zone = useZone();
  const onlyOpen = wider.openLink && people.length + wider.domains.length + wider.groups.length === 0;
  const whom = [people.length === 0 ? '' : `${String(people.length)} ${people.length === 1 ? 'person' : 'people'}`, ...wider.groups.map((group) => `${group.name} (${String(group.people)} now)`), ...wider.domains.map(({ domain }) => `everyone at ${domain.slice(1)}`), wider.openLink ? 'whoever has the link' : ''].filter((part) => part !== '');
  const first = people.at(0)?.address ?? 'mira.kolbe@brackwater.example';
  const apart = people.filter((person) => person.terms !== null).length;
  const fresh = people.filter((person) => person.check !== null && person.check.known === null).length;
  const doubtful = people.flatMap((person) => (person.check?.looksLike == null ? [] : [`${person.address} is one letter away from ${person.check.looksLike}`]));
  const blocked = people.filter((person) => person.check?.known?.blocked === true).map((person) => person.address);
  const noEnd = terms.until === null || people.some((person) => person.terms !== null && person.terms.until === null);
  const taken = ceilingWarnings(documents, terms, now, ceilings, (moment) => momentText(moment, zone));
  const conditions = conditionLines(terms.conditions, 'their zone');
  const warnings = [...doubtful.map((text) => `${text}. Is that meant?`), ...(blocked.length === 0 ? [] : [`Blocked, and could open nothing: ${blocked.join(', ')}.`]), ...(noEnd ? ['Some of this has no end.'] : []), ...(terms.rights.includes('pass-on') && terms.conditions?.passOn == null ? ['The right to pass on has no effect: say below to how many people.'] : [])];
  const marks = [...new Set(around.length === 0 ? [watermark] : around.map((rules) => watermarkUnder(watermark, rules)))].slice(0, MOST_SAMPLES);
  const samples = marks.map((mark) => fillTokens(mark, { name: first.split('@')[0] ?? '', address: first, organisation: 'their organisation', date: momentText(now, zone).slice(0, -6), time: momentText(now, zone).slice(-5), network: '192.0.2.14', reference: documents.at(0)?.reference ?? 'reference' }));
  return (
    <div className="stack">
      <h2>What this does</h2>
      <p className="answer">{whom.length === 0 ? 'Nobody is named yet.' : `${whom.join(', ').replace(/^./, (letter) => letter.toUpperCase())} may ${verbList(terms.rights)}${documents.length === 0 ? '' : ` ${String(documents.length)} ${documents.length === 1 ? 'document' : 'documents'}`}.`}</p>
      <p>{terms.until === null ? <b className="lamp">No end.</b> : <>Until <b>{momentText(terms.until, zone)} {zoneName(terms.until, zone)}</b>, {distanceText(terms.until, now)}.</>}</p>
      {conditions.length > 0 && <p>It opens {conditions.map((line) => line.replace(/^opens /, '')).join('; ')}.</p>}
      {taken.length > 0 && <div className="notice"><b>Less than this comes out.</b>{taken.map((text) => <p key={text}>{text}</p>)}<p className="quiet">It is given all the same, and holds as soon as the ceiling is raised. Ceilings are under Terms.</p></div>}
      {wider.domains.length > 0 && <p className="notice">How many are at {wider.domains.map(({ domain }) => domain.slice(1)).join(', ')} is unknown.{wider.mailed && ' Nobody there is mailed: their link stands on the dispatch, to carry.'} Whoever opens first becomes a person of their own, and can be revoked alone.</p>}
      {(apart > 0 || fresh > 0) && <p className="quiet">{[apart > 0 ? `${String(apart)} set apart from the rest` : null, fresh > 0 ? `${String(fresh)} new here` : null].filter((part) => part !== null).join(', ')}.</p>}
      {warnings.map((warning) => <p key={warning} className="notice">{warning}</p>)}
      {wider.openLink && <p className="notice">The link asks for no proof: who reads it, and how many, stays unknown. It can be revoked whole, for everybody who came by it.</p>}
      {form === 'unprotected' ? <p className="notice">It leaves in the clear. No end, no revocation and no watermark reaches it; it can be copied, printed and passed on by whoever has it. The record says to whom it went and why.</p> : <p className="quiet">{onlyOpen ? 'Whoever holds the link' : 'Each proves the address by a code, then'} reads marked pictures of the pages. Held by the server. A page kept open is asked for again each time, so if you had to pull this back, everyone would be shut out <b>at once</b>{terms.rights.includes('keep') ? ', except for copies that were kept' : terms.rights.includes('print') ? ', except for prints that were made' : ''}.</p>}
      {carriesFile(form) && <p className="quiet">The file {form === 'both' ? 'beside the link ' : ''}stays with them, encrypted: by itself it opens nothing, and its first page leads to the same proof. Your clear original stays with you; do not mix the two up.</p>}
      {problems.length > 0 && <><hr /><h2>Stands in the way</h2><ul style={{ paddingLeft: 18 }}>{problems.map((problem) => <li key={problem} className="magenta">{problem}</li>)}</ul></>}
      {terms.rights.includes('keep') && <><hr /><p className="notice">Whoever keeps a copy has it for good: the end and a revocation do not reach it.</p></>}
      <hr />
      <h2>Watermark, for {first}</h2>
      {samples.map((sample) => <p key={sample} className="figure">{sample === '' ? <span className="lamp">none</span> : sample}</p>)}
    </div>
  );
}

import type { FolderId } from '@/core/base/ids';
import { DAY, HOUR, type Moment } from '@/core/base/time';
import { domainOf } from '@/core/policy/address';
import type { Conditions } from '@/core/policy/conditions';
import type { Parents } from '@/core/policy/levels';
import { standingTerms, type Right, type Terms } from '@/core/policy/rights';

/** What one member of staff may send, to whom, and the most they may give. `null`: no limit. */
export type SenderLimits = {
  /** Only to people at these domains, as `@yard.example`. */
  readonly domains: readonly string[] | null;
  /** Only documents in these folders, or in folders below them. */
  readonly folders: readonly FolderId[] | null;
  readonly rights: readonly Right[] | null;
  /** Days from the giving on. */
  readonly days: number | null;
};
export const NO_SENDER_LIMITS: SenderLimits = {
  domains: null,
  folders: null,
  rights: null,
  days: null,
};

/** What is about to be given: addresses as they are kept, so that a domain is `@yard.example`. */
export type Giving = {
  readonly addresses: readonly string[];
  readonly documents: readonly { readonly title: string; readonly folderId: string | null }[];
  readonly terms: readonly (Pick<Terms, 'rights' | 'until'> & {
    readonly conditions?: Conditions | null | undefined;
  })[];
  readonly givenAt: Moment;
};

/** What of it goes beyond the limits. */
export type Beyond = {
  readonly people: readonly string[];
  readonly documents: readonly string[];
  readonly rights: readonly Right[];
  /** The days allowed, where an end lies beyond them. */ readonly days: number | null;
};

export function limitsSender(limits: SenderLimits): boolean {
  return Object.values(limits).some((limit) => limit !== null);
}

function isWithin(folder: string | null, allowed: readonly string[], parents: Parents): boolean {
  const seen = new Set<string>();
  // A loop of folders cannot come about; a damaged database must not hang a dispatch.
  for (let at = folder; at !== null && !seen.has(at); at = parents.get(at) ?? null) {
    if (allowed.includes(at)) return true;
    seen.add(at);
  }
  return false;
}

/**
 * The most of these terms that a sender may give from `now` on; what needs a right that is taken
 * goes with it. The end is on the hour, and never beyond what is allowed.
 */
export function termsWithin(
  terms: Terms,
  { rights, days }: Pick<SenderLimits, 'rights' | 'days'>,
  now: Moment,
): Terms {
  const left = terms.rights.filter((right) => rights === null || rights.includes(right));
  const latest = days === null ? null : Math.floor((now + days * DAY) / HOUR) * HOUR;
  return {
    ...terms,
    rights: standingTerms({ ...terms, rights: left }).rights,
    until: latest === null ? terms.until : Math.min(terms.until ?? latest, latest),
  };
}

/** Who cannot be named, since the recipients choose them. */
const PASSED_ON = 'anyone they pass it on to, unless only people at your domains';

function passesBeyond(
  { rights, conditions }: Giving['terms'][number],
  domains: readonly string[],
): boolean {
  const passOn = rights.includes('pass-on') ? conditions?.passOn : null;
  if (passOn == null) return false;
  return passOn.domains?.every((domain) => domains.includes(domain)) !== true;
}

/**
 * What of a dispatch goes beyond its sender's limits. Groups and open links are of no domain, so
 * they are beyond any list of them.
 */
export function beyondLimits(
  { domains, folders, rights, days }: SenderLimits,
  giving: Giving,
  parents: Parents,
): Beyond {
  const latest = days === null ? null : giving.givenAt + days * DAY;
  return {
    people:
      domains === null
        ? []
        : [
            ...giving.addresses.filter((address) => !domains.includes(domainOf(address))),
            ...(giving.terms.some((terms) => passesBeyond(terms, domains)) ? [PASSED_ON] : []),
          ],
    documents:
      folders === null
        ? []
        : giving.documents
            .filter(({ folderId }) => !isWithin(folderId, folders, parents))
            .map(({ title }) => title),
    rights:
      rights === null
        ? []
        : [...new Set(giving.terms.flatMap((terms) => terms.rights))].filter(
            (right) => !rights.includes(right),
          ),
    days:
      latest !== null && giving.terms.some(({ until }) => until === null || until > latest)
        ? days
        : null,
  };
}

const MOST_NAMED = 3;
const some = (names: readonly string[]): string =>
  names.length <= MOST_NAMED
    ? names.join(', ')
    : `${names.slice(0, MOST_NAMED).join(', ')} and ${String(names.length - MOST_NAMED)} more`;

/** The same in sentences. `nameOf`: what an addressee is called. */
export function beyondLines(
  { people, documents, rights, days }: Beyond,
  nameOf: (address: string) => string = (address) => address,
): string[] {
  return [
    people.length === 0 ? '' : `You may not send to ${some(people.map(nameOf))}.`,
    documents.length === 0
      ? ''
      : `You may not send ${some(documents.map((title) => `“${title}”`))} from where ` +
        `${documents.length === 1 ? 'it sits' : 'they sit'}.`,
    rights.length === 0 ? '' : `You may not give these rights: ${rights.join(', ')}.`,
    days === null
      ? ''
      : `You may give access for ${String(days)} ${days === 1 ? 'day' : 'days'} at most.`,
  ].filter((line) => line !== '');
}

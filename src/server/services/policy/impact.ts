import 'server-only';
import { setImmediate } from 'node:timers/promises';
import { groupBy } from '@/core/base/group';
import type { DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import { domainOf } from '@/core/policy/address';
import type { Ceiling } from '@/core/policy/ceiling';
import type { GrantFacts } from '@/core/policy/compile';
import { UNUSED, type Used } from '@/core/policy/conditions';
import { impactOn, type BeforeAndAfter, type Impact, type Who } from '@/core/policy/impact';
import type { Standing } from '@/core/policy/levels';
import { RIGHTS, type Terms } from '@/core/policy/rights';
import type { ImpactFound, Touched } from '@/contracts/impact';
import {
  termsOf,
  toFacts,
  toFactsAbove,
  usedOf,
  type GrantRecord,
} from '@/server/repositories/access/grant-reader';
import { findDocuments } from '@/server/repositories/documents/document-repository';
import {
  alikeGrants,
  grantsOfPairs,
  pairsToJudgeAlone,
  shutAnyway,
  type AlikeGrants,
  type AskedOf,
  type Pair,
} from '@/server/repositories/access/impact-repository';
import { recipientsByIds, whatStandsForMany } from '@/server/repositories/people/people-repository';
import { passedOnFrom } from '@/server/repositories/access/wider-repository';
import type { Deps } from '@/server/services/base/deps';
import { askerOf } from '@/server/services/policy/document-policy';

/** Grants looked at before others get their turn, and people judged one by one. */
const AT_ONCE = 5_000;
const ALONE_AT_ONCE = 500;
/** Names shown; the numbers count them all. */
const SHOWN = 100;

/**
 * A change of rules: what it does to the ceilings over a document, to grants themselves, or to what
 * stands on every page.
 */
export type RuleChange = {
  readonly before: (standing: Standing) => readonly Ceiling[];
  readonly after: (standing: Standing) => readonly Ceiling[];
  /** What the terms of a grant become; absent: they stay. */
  readonly terms?: (
    grant: Pick<GrantRecord, 'id' | 'termsId' | 'fromAt' | 'givenAt'>,
  ) => Terms | null;
  /** Whether other things stand on every page of what somebody can open. */
  readonly marks?: (standing: Standing) => boolean;
};

type Found = { readonly pair: Pair; readonly impact: Impact };

const ONLY_MARKS: Impact = {
  lost: [],
  gained: [],
  until: null,
  ends: false,
  revives: false,
  other: true,
};

/** What a change does to somebody, other marks on the pages of what they can open included. */
function judged(sides: BeforeAndAfter, who: Who, now: number, marks: boolean): Impact | null {
  const impact = impactOn(sides, who, now);
  if (impact !== null || !marks) return impact;
  // Whoever can open it, now or later, is touched if all of it were taken away.
  return impactOn({ before: sides.after, after: { ...sides.after, revoked: true } }, who, now) ===
    null
    ? null
    : ONLY_MARKS;
}

/** What a change does to grants that are alike, each the only one that its person has on the document. */
function judgeAlike(alike: AlikeGrants, change: RuleChange, now: number): Impact | null {
  const standing: Standing = {
    document: alike.own ?? '',
    marking: alike.markingId,
    folder: alike.folderId,
  };
  const [recipient, document] = [alike.recipients[0], alike.documents[0]];
  if (recipient === undefined || document === undefined) return null;
  const row = {
    id: 'grt_alike' as GrantId,
    termsId: alike.termsId,
    fromAt: alike.from,
    untilAt: alike.until,
    givenAt: alike.givenAt,
  };
  const terms = termsOf({ ...alike, ...row });
  const facts: GrantFacts = {
    id: row.id,
    addressee: { kind: 'person', id: recipient },
    terms,
    revoked: false,
    used: { ...UNUSED, prints: alike.printsMade },
    givenBy: 'stf_',
    givenAt: alike.givenAt,
  };
  const policy = { id: document, revoked: false, keyDestroyed: false };
  const sides = {
    before: { ...policy, ceilings: change.before(standing), grants: [facts] },
    after: {
      ...policy,
      ceilings: change.after(standing),
      grants: [{ ...facts, terms: change.terms?.(row) ?? terms }],
    },
  };
  return judged(
    sides,
    { recipient: { id: recipient, blocked: false } },
    now,
    change.marks?.(standing) ?? false,
  );
}

/** What a change does to people one by one, by everything that each has on a document. */
async function judgeAlone(
  deps: Pick<Deps, 'db'>,
  pairs: readonly Pair[],
  change: RuleChange,
  now: number,
): Promise<Found[]> {
  const db = deps.db.read;
  const { own, ofDomains } = await grantsOfPairs(db, pairs);
  const above = await passedOnFrom(db, own);
  const used = await usedOf(
    db,
    [...own, ...above, ...ofDomains].map(({ id }) => id),
    null,
  );
  const [people, documents] = await Promise.all([
    recipientsByIds(db, [...new Set(pairs.map(({ recipient }) => recipient))]),
    findDocuments(db, [...new Set(pairs.map(({ document }) => document))]),
  ]);
  const personOf = new Map(people.map((person) => [person.id, person]));
  const documentOf = new Map(documents.map((document) => [document.id, document]));
  const grantsOf = groupBy(own, ({ recipientId, documentId }) => `${recipientId} ${documentId}`);
  const aboveOf = groupBy(above, ({ documentId }) => documentId);
  const domainsOf = groupBy(ofDomains, ({ documentId, domain }) => `${domain} ${documentId}`);
  return pairs.flatMap((pair): Found[] => {
    const [person, document] = [personOf.get(pair.recipient), documentOf.get(pair.document)];
    if (person === undefined || document === undefined) return [];
    const mine: readonly GrantRecord[] = grantsOf.get(`${person.id} ${document.id}`) ?? [];
    const sendings = new Set(mine.map(({ dispatchId }) => dispatchId));
    // Whoever has a grant of their own in a dispatch is judged by that one there.
    const wider =
      person.kind === 'domain'
        ? []
        : (domainsOf.get(`${domainOf(person.address)} ${document.id}`) ?? []).filter(
            ({ dispatchId }) => !sendings.has(dispatchId),
          );
    const ids = new Set(mine.map(({ id }) => id));
    const others = (aboveOf.get(document.id) ?? []).filter(({ id }) => !ids.has(id));
    const facts = (terms: (row: GrantRecord) => Terms): GrantFacts[] => [
      ...mine.map((row) => ({ ...toFacts(row, usedBy(used, row)), terms: terms(row) })),
      ...others.map((row) => ({ ...toFactsAbove(row, usedBy(used, row)), terms: terms(row) })),
      ...wider.map((row) => ({ ...toFacts(row, {}, row.domain), terms: terms(row) })),
    ];
    const standing: Standing = {
      document: document.id,
      marking: document.markingId,
      folder: document.folderId,
    };
    const policy = { id: document.id, revoked: false, keyDestroyed: false };
    const sides = {
      before: { ...policy, ceilings: change.before(standing), grants: facts(termsOf) },
      after: {
        ...policy,
        ceilings: change.after(standing),
        grants: facts((row) => change.terms?.(row) ?? termsOf(row)),
      },
    };
    const impact = judged(
      sides,
      { recipient: askerOf(person, person) },
      now,
      change.marks?.(standing) ?? false,
    );
    return impact === null ? [] : [{ pair, impact }];
  });
}

function usedBy(used: ReadonlyMap<GrantId, Partial<Used>>, { id }: GrantRecord): Partial<Used> {
  return used.get(id) ?? {};
}

/** Everything that somebody who is touched adds to the numbers. */
class Tally {
  readonly people = new Set<RecipientId>();
  unknown = false;

  add(recipient: RecipientId, standsForMany: boolean): void {
    if (standsForMany) this.unknown = true;
    else this.people.add(recipient);
  }

  get touched(): Touched {
    return { people: this.people.size, unknown: this.unknown };
  }

  get isEmpty(): boolean {
    return this.people.size === 0 && !this.unknown;
  }
}

function endsSooner({ until, ends }: Impact): boolean {
  return !ends && until?.after != null && (until.before === null || until.after < until.before);
}

function endsLater(impact: Impact): boolean {
  return impact.until !== null && !impact.ends && !impact.revives && !endsSooner(impact);
}

/**
 * What a change of rules would do to everybody, in numbers and names: people are counted whose
 * access to some document becomes another.
 */
export async function impactOf(
  deps: Pick<Deps, 'db'>,
  now: number,
  asked: AskedOf & { readonly opens?: boolean },
  change: RuleChange,
): Promise<ImpactFound> {
  const db = deps.db.read;
  const [many, shut, special] = await Promise.all([
    whatStandsForMany(db),
    shutAnyway(db),
    pairsToJudgeAlone(db, asked, asked.opens === true),
  ]);
  const kinds = new Map(many.map(({ id, kind }) => [id, kind]));
  const isLeftOut = ({ recipient, document }: Pair): boolean =>
    shut.people.has(recipient) || shut.documents.has(document) || kinds.get(recipient) === 'group';
  const keyOf = ({ recipient, document }: Pair): string => `${recipient} ${document}`;
  const alone = new Map(
    [...groupBy(special, ({ document }) => document)].map(([document, of]) => [
      document,
      new Set(of.map(({ recipient }) => recipient)),
    ]),
  );
  const inQuestion = new Map<string, Pair>(
    asked.terms === undefined ? [] : special.map((pair) => [keyOf(pair), pair]),
  );

  const [all, endNow, sooner, later, revive, other] = [
    new Tally(),
    new Tally(),
    new Tally(),
    new Tally(),
    new Tally(),
    new Tally(),
  ];
  const rights = RIGHTS.map((right) => ({ right, lost: new Tally(), gained: new Tally() }));
  const documents = new Set<DocumentId>();
  const shown: (Found & { readonly until: number | null })[] = [];
  let pairs = 0;
  /** Adds up people to whom the change does the same. */
  const count = (
    impact: Impact,
    touched: Iterable<RecipientId>,
    on: Iterable<DocumentId>,
  ): void => {
    const tallies = [
      all,
      ...(impact.ends ? [endNow] : []),
      ...(endsSooner(impact) ? [sooner] : []),
      ...(endsLater(impact) ? [later] : []),
      ...(impact.revives ? [revive] : []),
      ...(impact.other ? [other] : []),
      ...rights.flatMap(({ right, lost, gained }) => [
        ...(impact.lost.includes(right) ? [lost] : []),
        ...(impact.gained.includes(right) ? [gained] : []),
      ]),
    ];
    for (const recipient of touched) {
      const standsForMany = kinds.has(recipient);
      for (const tally of tallies) tally.add(recipient, standsForMany);
    }
    for (const document of on) documents.add(document);
  };
  const show = (impact: Impact, touched: readonly Pair[], until: number | null): void => {
    pairs += touched.length;
    if (shown.length < SHOWN)
      for (const pair of touched.slice(0, SHOWN - shown.length))
        shown.push({ pair, impact, until });
  };

  /** What the change does to grants that are alike is found once, however many stretches they lie in. */
  const known = new Map<
    string,
    {
      readonly impact: Impact | null;
      readonly people: Set<RecipientId>;
      readonly documents: Set<DocumentId>;
    }
  >();
  for (let at = 0; ;) {
    const { alike, grants: seen, last } = await alikeGrants(db, now, asked, at, AT_ONCE);
    for (const grants of alike) {
      const one = known.get(grants.key) ?? {
        impact: judgeAlike(grants, change, now),
        people: new Set(),
        documents: new Set(),
      };
      known.set(grants.key, one);
      const touched: Pair[] = [];
      for (const [index, recipient] of grants.recipients.entries()) {
        const pair: Pair = { recipient, document: grants.documents[index] ?? 'doc_' };
        if (isLeftOut(pair)) continue;
        if (alone.get(pair.document)?.has(recipient) === true) inQuestion.set(keyOf(pair), pair);
        else if (one.impact !== null) touched.push(pair);
      }
      if (one.impact === null) continue;
      for (const { recipient, document } of touched) {
        one.people.add(recipient);
        one.documents.add(document);
      }
      show(one.impact, touched, grants.until);
    }
    if (seen < AT_ONCE) break;
    at = last;
    await setImmediate();
  }
  for (const { impact, people, documents: on } of known.values())
    if (impact !== null) count(impact, people, on);
  const rest = [...inQuestion.values()].filter((pair) => !isLeftOut(pair));
  for (let at = 0; at < rest.length; at += ALONE_AT_ONCE) {
    for (const { pair, impact } of await judgeAlone(
      deps,
      rest.slice(at, at + ALONE_AT_ONCE),
      change,
      now,
    )) {
      count(impact, [pair.recipient], [pair.document]);
      show(impact, [pair], null);
    }
    await setImmediate();
  }
  const [named, titled] = await Promise.all([
    recipientsByIds(db, [...new Set(shown.map(({ pair }) => pair.recipient))]),
    findDocuments(db, [...new Set(shown.map(({ pair }) => pair.document))]),
  ]);
  return {
    pairs,
    people: all.people.size,
    unknown: all.unknown,
    documents: documents.size,
    rights: rights
      .filter(({ lost, gained }) => !lost.isEmpty || !gained.isEmpty)
      .map(({ right, lost, gained }) => ({ right, lost: lost.touched, gained: gained.touched })),
    endNow: endNow.touched,
    endSooner: sooner.touched,
    endLater: later.touched,
    revive: revive.touched,
    other: other.touched,
    rows: shown.map(({ pair: { recipient, document }, until, impact }) => {
      const person = named.find(({ id }) => id === recipient);
      return {
        recipient,
        person: person?.kind === 'person',
        name: person === undefined ? '' : person.name === '' ? person.address : person.name,
        organisation: person?.organisation ?? '',
        document,
        title: titled.find(({ id }) => id === document)?.title ?? '',
        lost: impact.lost,
        gained: impact.gained,
        before: impact.until === null ? until : impact.until.before,
        after: impact.until === null ? until : impact.until.after,
        endMoves: impact.until !== null,
        ends: impact.ends,
      };
    }),
  };
}

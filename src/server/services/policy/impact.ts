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
import type { Terms } from '@/core/policy/rights';
import type { ImpactFound } from '@/contracts/impact';
import type { Reading } from '@/server/db/database';
import { allReadOn } from '@/server/repositories/access/after-repository';
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
import { ImpactCounts } from '@/server/services/policy/impact-counts';

/** Grants looked at before others get their turn, and people judged one by one. */
const AT_ONCE = 5_000;
const ALONE_AT_ONCE = 500;

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
  // Anyone who can open it, now or later, is touched if all of it were taken away.
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
    const dispatches = new Set(mine.map(({ dispatchId }) => dispatchId));
    // Anyone who has a grant of their own in a dispatch is judged by that one there.
    const wider =
      person.kind === 'domain'
        ? []
        : (domainsOf.get(`${domainOf(person.address)} ${document.id}`) ?? []).filter(
            ({ dispatchId }) => !dispatches.has(dispatchId),
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

type Judged = {
  readonly impact: Impact | null;
  readonly people: Set<RecipientId>;
  readonly documents: Set<DocumentId>;
};

/** Who is looked at one by one, and who is not looked at: a change cannot touch them. */
class Question {
  /** Pairs that are judged alone, by document. */
  readonly #alone: ReadonlyMap<DocumentId, ReadonlySet<RecipientId>>;
  readonly #pairs = new Map<string, Pair>();

  constructor(
    special: readonly Pair[],
    readonly isLeftOut: (pair: Pair) => boolean,
    { all }: { readonly all: boolean },
  ) {
    this.#alone = new Map(
      [...groupBy(special, ({ document }) => document)].map(([document, of]) => [
        document,
        new Set(of.map(({ recipient }) => recipient)),
      ]),
    );
    if (all) for (const pair of special) this.#add(pair);
  }

  #add(pair: Pair): void {
    this.#pairs.set(`${pair.recipient} ${pair.document}`, pair);
  }

  /** Those of a stretch who are what they are by its grant alone; the others are kept to be judged. */
  simple({ recipients, documents }: AlikeGrants): Pair[] {
    const simple: Pair[] = [];
    for (const [index, recipient] of recipients.entries()) {
      const pair: Pair = { recipient, document: documents[index] ?? 'doc_' };
      if (this.isLeftOut(pair)) continue;
      if (this.#alone.get(pair.document)?.has(recipient) === true) this.#add(pair);
      else simple.push(pair);
    }
    return simple;
  }

  get rest(): Pair[] {
    return [...this.#pairs.values()].filter((pair) => !this.isLeftOut(pair));
  }
}

/**
 * Everybody who holds one grant on a document: what the change does to grants that are alike is
 * found once, however many stretches they lie in.
 */
async function countAlike(
  db: Reading,
  now: number,
  asked: AskedOf,
  change: RuleChange,
  question: Question,
  counts: ImpactCounts,
): Promise<void> {
  const known = new Map<string, Judged>();
  for (let at = 0; ;) {
    const { alike, grants: seen, last } = await alikeGrants(db, now, asked, at, AT_ONCE);
    for (const grants of alike) {
      const one = known.get(grants.key) ?? {
        impact: judgeAlike(grants, change, now),
        people: new Set(),
        documents: new Set(),
      };
      known.set(grants.key, one);
      const touched = question.simple(grants);
      if (one.impact === null) continue;
      for (const { recipient, document } of touched) {
        one.people.add(recipient);
        one.documents.add(document);
      }
      counts.show(one.impact, touched, grants.until);
    }
    if (seen < AT_ONCE) break;
    at = last;
    await setImmediate();
  }
  for (const { impact, people, documents } of known.values())
    if (impact !== null) counts.count(impact, people, documents);
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
  const [many, shut, special, running] = await Promise.all([
    whatStandsForMany(db),
    shutAnyway(db),
    pairsToJudgeAlone(db, asked, asked.opens === true),
    allReadOn(db, now),
  ]);
  const kinds = new Map(many.map(({ id, kind }) => [id, kind]));
  const question = new Question(
    special,
    ({ recipient, document }) =>
      shut.people.has(recipient) ||
      shut.documents.has(document) ||
      kinds.get(recipient) === 'group',
    { all: asked.terms !== undefined },
  );
  const counts = new ImpactCounts((recipient) => kinds.has(recipient), running);
  await countAlike(db, now, asked, change, question, counts);
  const { rest } = question;
  for (let at = 0; at < rest.length; at += ALONE_AT_ONCE) {
    const pairs = rest.slice(at, at + ALONE_AT_ONCE);
    for (const { pair, impact } of await judgeAlone(deps, pairs, change, now)) {
      counts.count(impact, [pair.recipient], [pair.document]);
      counts.show(impact, [pair], null);
    }
    await setImmediate();
  }
  return counts.found(db);
}

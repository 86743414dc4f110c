import 'server-only';
import { groupBy } from '@/core/base/group';
import type { DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import { pastAccess, pastCeilings, type PastGrant } from '@/core/ledger/past-access';
import { domainOf } from '@/core/policy/address';
import type { Ceiling } from '@/core/policy/ceiling';
import { compileDocument, type CompiledDocument, type GrantFacts } from '@/core/policy/compile';
import { reaching, type Standing } from '@/core/policy/levels';
import { folderParents } from '@/server/repositories/policy/ceiling-repository';
import {
  toFacts,
  toFactsAbove,
  usedOf,
  type GrantRecord,
  type GrantsOf,
  grantsOf,
} from '@/server/repositories/access/grant-reader';
import { type RecipientRecord } from '@/server/repositories/people/recipient-repository';
import type { findDocument } from '@/server/repositories/documents/document-repository';
import {
  accessEntries,
  ceilingEntries,
  filedSince,
  printsSince,
} from '@/server/repositories/access/past-repository';
import { passedOnFrom } from '@/server/repositories/access/wider-repository';
import type { Deps } from '@/server/services/base/deps';

type Row = Awaited<ReturnType<typeof grantsOf>>[number];
type DocumentRecord = NonNullable<Awaited<ReturnType<typeof findDocument>>>['document'];
type Person = Pick<RecipientRecord, 'id' | 'address'>;

/** Where a document lay at a moment: what it was filed from since then, first of all. */
async function standingThen(
  deps: Pick<Deps, 'db'>,
  document: DocumentRecord,
  at: Moment,
): Promise<Standing> {
  const moves = (await filedSince(deps.db.read, document.id, at)).map(
    ({ details }) => details['before'] as Partial<Record<'markingId' | 'folderId', string | null>>,
  );
  const first = (which: 'markingId' | 'folderId'): string | null => {
    const move = moves.find((before) => before[which] !== undefined);
    return move === undefined ? document[which] : (move[which] ?? null);
  };
  return { document: document.id, marking: first('markingId'), folder: first('folderId') };
}

async function ceilingsThen(
  deps: Pick<Deps, 'db'>,
  document: DocumentRecord,
  at: Moment,
): Promise<readonly Ceiling[]> {
  const [entries, standing, parents] = await Promise.all([
    ceilingEntries(deps.db.read, at),
    standingThen(deps, document, at),
    folderParents(deps.db.read),
  ]);
  return reaching(standing, pastCeilings(entries), parents);
}

/** The grants that these were passed on from, and those above them, without themselves. */
function aboveThese(
  all: ReadonlyMap<GrantId, GrantRecord>,
  rows: readonly GrantRecord[],
): GrantRecord[] {
  const found = new Map<GrantId, GrantRecord>();
  const own = new Set(rows.map(({ id }) => id));
  const queue = [...rows];
  for (let row = queue.pop(); row !== undefined; row = queue.pop()) {
    const parent =
      row.passedOnBy === null || row.parentId === null ? undefined : all.get(row.parentId);
    if (parent === undefined || own.has(parent.id) || found.has(parent.id)) continue;
    found.set(parent.id, parent);
    queue.push(parent);
  }
  return [...found.values()];
}

/** What decided about a document at a moment, for any of some people. */
export type Then = {
  readonly policyFor: (person: Person) => CompiledDocument;
  readonly people: readonly RecipientRecord[];
};

/**
 * Rebuilds what decided about a document at a moment of the past: grants, revocations and ceilings
 * from the ledger; what was used by then from the opens and prints. Which folder lies in which is
 * taken as it is now. `rows`: every grant that anybody asked about reaches, those of domains
 * included.
 */
async function rebuilt(
  deps: Pick<Deps, 'db'>,
  document: DocumentRecord,
  rows: readonly Row[],
  at: Moment,
  only: readonly RecipientId[] | undefined,
): Promise<Then> {
  const db = deps.db.read;
  const own = rows.filter(({ grant }) => grant.givenAt <= at);
  const above = (
    await passedOnFrom(
      db,
      own.map(({ grant }) => grant),
    )
  ).filter(({ id }) => !own.some(({ grant }) => grant.id === id));
  const recipients =
    only === undefined
      ? undefined
      : [
          ...new Set([
            ...only,
            ...rows.map(({ recipient }) => recipient.id),
            ...above.map(({ recipientId }) => recipientId),
          ]),
        ];
  const all = new Map(
    [...own.map(({ grant }) => grant), ...above].map((grant) => [grant.id, grant]),
  );
  const [entries, ceilings, used, prints] = await Promise.all([
    accessEntries(db, document.id, at, recipients),
    ceilingsThen(deps, document, at),
    usedOf(db, [...all.keys()], null, at),
    printsSince(db, document.id, at),
  ]);
  const past = pastAccess(entries);
  const then = (row: GrantRecord, facts: GrantFacts): GrantFacts[] => {
    const grant: PastGrant | undefined = past.grants.get(row.id);
    if (grant === undefined) return [];
    const printsThen = Math.max(0, row.printsMade - (prints.get(row.id) ?? 0));
    return [
      {
        ...facts,
        terms: grant.terms,
        revoked: grant.revokedAt !== null,
        revokedAt: grant.revokedAt,
        used: { ...facts.used, prints: printsThen },
      },
    ];
  };
  const domains = groupBy(
    own.filter(({ recipient }) => recipient.kind === 'domain'),
    ({ recipient }) => recipient.address,
  );
  const byPerson = groupBy(own, ({ recipient }) => recipient.id);
  return {
    people: [...new Map(own.map(({ recipient }) => [recipient.id, recipient])).values()],
    policyFor: (person) => {
      const mine = byPerson.get(person.id) ?? [];
      // Anyone who had a grant of their own in a dispatch is judged by that one there.
      const dispatches = new Set(mine.map(({ grant }) => grant.dispatchId));
      const along = (domains.get(domainOf(person.address)) ?? []).filter(
        ({ grant, recipient }) => recipient.id !== person.id && !dispatches.has(grant.dispatchId),
      );
      const grants = [
        ...mine.flatMap(({ grant }) => then(grant, toFacts(grant, used.get(grant.id)))),
        ...along.flatMap(({ grant, recipient }) =>
          then(grant, toFacts(grant, {}, recipient.address)),
        ),
      ];
      const over = aboveThese(
        all,
        mine.map(({ grant }) => grant),
      ).flatMap((row) => then(row, toFactsAbove(row, used.get(row.id))));
      return compileDocument({
        id: document.id,
        revoked: past.revokedAt !== null,
        revokedAt: past.revokedAt,
        keyDestroyed: past.keyDestroyed,
        ceilings,
        grants: [...grants, ...over],
      });
    },
  };
}

async function rowsOf(deps: Pick<Deps, 'db'>, of: GrantsOf, document: DocumentId): Promise<Row[]> {
  return (await grantsOf(deps.db.read, of)).filter((row) => row.document.id === document);
}

/** What decided about a document at a moment, for everybody who had been given it by then. */
export async function documentThen(
  deps: Pick<Deps, 'db'>,
  document: DocumentRecord,
  at: Moment,
): Promise<Then> {
  return rebuilt(
    deps,
    document,
    await grantsOf(deps.db.read, { document: document.id }),
    at,
    undefined,
  );
}

/** The same for one person. `domain`: the addressee that stands for everybody at their domain, if there is one. */
export async function documentThenFor(
  deps: Pick<Deps, 'db'>,
  document: DocumentRecord,
  person: Person,
  domain: RecipientId | null,
  at: Moment,
): Promise<Then> {
  const rows = [
    ...(await rowsOf(deps, { recipient: person.id }, document.id)),
    ...(domain === null ? [] : await rowsOf(deps, { recipient: domain }, document.id)),
  ];
  return rebuilt(deps, document, rows, at, [person.id]);
}

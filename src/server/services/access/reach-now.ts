import 'server-only';
import { groupBy } from '@/core/base/group';
import type { DocumentId, GrantId } from '@/core/base/ids';
import type { Ceiling } from '@/core/policy/ceiling';
import { compileDocument } from '@/core/policy/compile';
import { ANYWHERE, type Used } from '@/core/policy/conditions';
import { domainOf } from '@/core/policy/address';
import { standsForMany } from '@/core/policy/addressee';
import { reach, type Reach } from '@/core/policy/reach';
import {
  grantsOf,
  toFacts,
  toFactsAbove,
  usedOf,
  type GrantRecord,
  type GrantsOf,
} from '@/server/repositories/access/grant-reader';
import { type RecipientRecord } from '@/server/repositories/people/recipient-repository';
import { passedOnFrom } from '@/server/repositories/access/wider-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps } from '@/server/services/base/deps';
import { askerOf, ceilingFinder } from '@/server/services/policy/document-policy';

export type Row = Awaited<ReturnType<typeof grantsOf>>[number];
type Known = {
  readonly above: readonly GrantRecord[];
  readonly ceilingsOf: Awaited<ReturnType<typeof ceilingFinder>>;
  readonly used: ReadonlyMap<string, Partial<Used>>;
  readonly now: number;
  readonly zone: string;
};

async function known(deps: Pick<Deps, 'db' | 'clock'>, rows: readonly Row[]): Promise<Known> {
  const db = deps.db.read;
  const [ceilingsOf, organisation] = await Promise.all([ceilingFinder(db), findOrganisation(db)]);
  const counted = (ceilings: readonly Ceiling[]): boolean =>
    ceilings.some(({ limits }) => limits.opens !== null);
  const above = await passedOnFrom(
    db,
    rows.map(({ grant }) => grant),
  );
  const asked = [
    ...rows
      .filter(({ grant, document }) => grant.conditions !== null || counted(ceilingsOf(document)))
      .map(({ grant }) => grant.id),
    ...above.map(({ id }) => id),
  ];
  return {
    above,
    ceilingsOf,
    used: asked.length === 0 ? new Map() : await usedOf(db, asked, null),
    now: deps.clock.now(),
    zone: organisation?.zone ?? 'UTC',
  };
}

/**
 * Whether somebody reaches a document now, wherever they are and on whatever device: `rows` are all
 * they have on it.
 */
function reachOf(
  person: Pick<RecipientRecord, 'id' | 'address' | 'blocked' | 'zone'>,
  rows: readonly [Row, ...Row[]],
  { above, ceilingsOf, used, now, zone }: Known,
): Reach {
  const [{ document, hasKey }] = rows;
  const own = new Set(rows.map(({ grant }) => grant.id));
  const compiled = compileDocument({
    id: document.id,
    revoked: document.revokedAt !== null,
    keyDestroyed: hasKey === 0,
    ceilings: ceilingsOf(document),
    grants: [
      ...rows.map(({ grant, recipient }) =>
        toFacts(
          grant,
          used.get(grant.id),
          recipient.kind === 'domain' && recipient.id !== person.id ? recipient.address : null,
        ),
      ),
      ...above
        .filter((grant) => grant.documentId === document.id && !own.has(grant.id))
        .map((grant) => toFactsAbove(grant, used.get(grant.id))),
    ],
  });
  return reach(compiled, {
    identity: 'proven',
    recipient: askerOf(person, person),
    at: { now, zone: person.zone ?? zone, network: ANYWHERE, country: ANYWHERE, device: ANYWHERE },
  });
}

/** Every document on which a person has anything, by whatever route, and whether they can open it now. */
export async function documentsReached(
  deps: Pick<Deps, 'db' | 'clock'>,
  person: Pick<RecipientRecord, 'id' | 'address' | 'blocked' | 'zone'>,
): Promise<ReadonlyMap<DocumentId, Reach>> {
  const of = (which: GrantsOf) => grantsOf(deps.db.read, which);
  const rows = (
    await Promise.all([of({ recipient: person.id }), of({ widerThan: person.id })])
  ).flat();
  const facts = await known(deps, rows);
  const found = new Map<DocumentId, Reach>();
  for (const [id, [first, ...more]] of groupBy(rows, ({ document }) => document.id))
    if (first !== undefined) found.set(id, reachOf(person, [first, ...more], facts));
  return found;
}

/** How many people a document reaches now, and whether more can come in than can be counted. */
export async function peopleReached(
  deps: Pick<Deps, 'db' | 'clock'>,
  document: DocumentId,
): Promise<{ readonly people: number; readonly unknown: boolean }> {
  const rows = await grantsOf(deps.db.read, { document });
  const facts = await known(deps, rows);
  const many = rows.filter(({ recipient }) => standsForMany(recipient.kind));
  let people = 0;
  for (const [first, ...more] of groupBy(
    rows.filter(({ recipient }) => !standsForMany(recipient.kind)),
    ({ recipient }) => recipient.id,
  ).values()) {
    if (first === undefined) continue;
    const { recipient } = first;
    // Anyone who has a grant of their own in a dispatch is judged by that one there.
    const along = many.filter(
      (row) =>
        row.recipient.address === domainOf(recipient.address) &&
        ![first, ...more].some(({ grant }) => grant.dispatchId === row.grant.dispatchId),
    );
    if (reachOf(recipient, [first, ...more, ...along], facts).opens) people++;
  }
  const open = many.some(
    (row) =>
      row.recipient.kind !== 'group' &&
      reachOf({ ...row.recipient, address: '' }, [row], facts).opens,
  );
  return { people, unknown: open };
}

/** Somebody on a document: by which grants they can open it, before some are revoked and after. */
export type Reached = {
  readonly person: RecipientRecord;
  readonly before: Reach;
  readonly after: Reach;
};

/** Everybody whom grants of a document are for by name, were these revoked. `rows`: every grant on it. */
export async function reachedWithout(
  deps: Pick<Deps, 'db' | 'clock'>,
  rows: readonly Row[],
  revoked: ReadonlySet<GrantId>,
): Promise<Reached[]> {
  const now = deps.clock.now();
  const cut = (row: Row): Row =>
    revoked.has(row.grant.id)
      ? { ...row, grant: { ...row.grant, revokedAt: row.grant.revokedAt ?? now } }
      : row;
  const facts = await known(deps, rows);
  const factsAfter = {
    ...facts,
    above: facts.above.map((grant) =>
      revoked.has(grant.id) ? { ...grant, revokedAt: grant.revokedAt ?? now } : grant,
    ),
  };
  const domains = groupBy(
    rows.filter(({ recipient }) => recipient.kind === 'domain'),
    ({ recipient }) => recipient.address,
  );
  const own = groupBy(
    rows.filter(({ recipient }) => !standsForMany(recipient.kind)),
    ({ recipient }) => recipient.id,
  );
  return [...own.values()].flatMap((mine): Reached[] => {
    const [first, ...more] = mine;
    if (first === undefined) return [];
    // Anyone who has a grant of their own in a dispatch is judged by that one there.
    const dispatches = new Set(mine.map(({ grant }) => grant.dispatchId));
    const along = (domains.get(domainOf(first.recipient.address)) ?? []).filter(
      ({ grant }) => !dispatches.has(grant.dispatchId),
    );
    return [
      {
        person: first.recipient,
        before: reachOf(first.recipient, [first, ...more, ...along], facts),
        after: reachOf(
          first.recipient,
          [cut(first), ...more.map(cut), ...along.map(cut)],
          factsAfter,
        ),
      },
    ];
  });
}

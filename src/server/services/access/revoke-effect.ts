import 'server-only';
import type { DocumentId, GrantId, RecipientId } from '@/core/base/ids';
import { groupBy } from '@/core/base/group';
import { standsForMany } from '@/core/policy/addressee';
import { windowState } from '@/core/policy/decide';
import { reaches } from '@/core/policy/permissions';
import type { ReadsOn, RevokeEffect, StillReads, WayIn } from '@/contracts/access';
import { grantsOf, toFacts } from '@/server/repositories/access/grant-reader';
import {
  latestByPerson,
  runningOffline,
  whoReadsOn,
} from '@/server/repositories/access/after-repository';
import { beyondRevoking } from '@/server/repositories/people/people-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { reachedWithout, type Reached, type Row } from '@/server/services/access/reach-now';

/** A grant of which only its place counts here. */
export type Cut = {
  readonly id: GrantId;
  readonly recipientId: RecipientId;
  readonly documentId: DocumentId;
};

function nameOf({ name, address }: { readonly name: string; readonly address: string }): string {
  return name === '' ? address : name;
}

/** How a grant lets somebody in, in the terms of the person who has to close it. */
export function wayOf(
  actor: StaffActor,
  { grant, recipient, document, dispatch }: Row,
  rows: readonly Row[],
): WayIn {
  const about = {
    grant: grant.id,
    dispatch: dispatch.reference,
    mayClose: reaches(actor, {
      sender: dispatch.sentBy,
      owner: document.ownerId,
      deputy: document.deputyId,
    }),
  };
  if (recipient.kind === 'domain') return { ...about, by: 'domain', name: recipient.address };
  const above = rows.find((row) => row.grant.id === grant.parentId);
  if (grant.passedOnBy !== null)
    return { ...about, by: 'passed-on', name: above === undefined ? '' : nameOf(above.recipient) };
  return above?.recipient.kind === 'group'
    ? { ...about, by: 'group', name: above.recipient.name }
    : { ...about, by: 'own', name: '' };
}

/** Who reads on, on their own machine, whatever is ended here now; the last of them first. */
export async function readsOnOf(
  deps: Pick<Deps, 'db' | 'clock'>,
  asked: Parameters<typeof whoReadsOn>[1],
): Promise<readonly ReadsOn[]> {
  const rows = await whoReadsOn(deps.db.read, asked, deps.clock.now());
  return rows.map((row) => ({ name: nameOf(row), until: row.until }));
}

function stillReading(
  actor: StaffActor,
  { person, after }: Reached,
  rows: readonly Row[],
): StillReads[] {
  const [first] = rows;
  if (!after.opens || first === undefined) return [];
  const routes = rows.filter(({ grant }) => after.routes.includes(grant.id));
  return [
    {
      recipient: person.id,
      name: nameOf(person),
      document: first.document.id,
      title: first.document.title,
      ways: routes.map((row) => wayOf(actor, row, rows)),
    },
  ];
}

/** Open links of a document by which anyone who holds one still reads it. */
export function openLinksOf(
  rows: readonly Row[],
  cut: ReadonlySet<GrantId>,
  now: number,
): RevokeEffect['openLinks'] {
  return rows
    .filter(
      ({ grant, recipient, document }) =>
        recipient.kind === 'link' &&
        !cut.has(grant.id) &&
        document.revokedAt === null &&
        windowState(toFacts(grant), now) === null,
    )
    .map(({ document, dispatch }) => ({ title: document.title, dispatch: dispatch.reference }));
}

/** What of these grants stands for many, and lets somebody in now. */
function closesOf(
  rows: readonly Row[],
  cut: ReadonlySet<GrantId>,
  now: number,
): RevokeEffect['closes'] {
  return rows
    .filter(
      ({ grant, recipient, document }) =>
        cut.has(grant.id) &&
        standsForMany(recipient.kind) &&
        document.revokedAt === null &&
        windowState(toFacts(grant), now) === null,
    )
    .map(({ recipient: { kind, name, address } }) => ({
      kind,
      name: kind === 'domain' ? address : kind === 'group' ? name : '',
    }));
}

/**
 * What revoking these grants does to people, by every way that each of them has: who can open
 * nothing of it any more, and who still can, and how. Asked once more when it is done, the same
 * grants tell who can still open something of it then.
 */
export async function effectOfRevoke(
  deps: Pick<Deps, 'db' | 'clock'>,
  actor: StaffActor,
  cuts: readonly Cut[],
): Promise<RevokeEffect> {
  const cut = new Set(cuts.map(({ id }) => id));
  const hit = groupBy(cuts, ({ documentId }) => documentId);
  const before = new Map<RecipientId, { readonly name: string; opens: boolean; still: boolean }>();
  const stillReads: StillReads[] = [];
  const openLinks: RevokeEffect['openLinks'][number][] = [];
  const closes = new Map<string, RevokeEffect['closes'][number]>();
  const ended = new Set<GrantId>();
  for (const documentId of hit.keys()) {
    const rows = await grantsOf(deps.db.read, { document: documentId });
    const parents = new Map(rows.map(({ grant }) => [grant.id, grant.parentId]));
    const below = rows.filter(({ grant }) => isBelow(grant.id, cut, parents));
    for (const { grant } of below) ended.add(grant.id);
    const touched = new Set(below.map(({ recipient }) => recipient.id));
    openLinks.push(...openLinksOf(rows, cut, deps.clock.now()));
    for (const each of closesOf(rows, cut, deps.clock.now()))
      closes.set(`${each.kind} ${each.name}`, each);
    for (const reached of await reachedWithout(deps, rows, cut)) {
      if (!touched.has(reached.person.id)) continue;
      const there = before.get(reached.person.id) ?? {
        name: nameOf(reached.person),
        opens: false,
        still: false,
      };
      before.set(reached.person.id, {
        name: there.name,
        opens: there.opens || reached.before.opens,
        still: there.still || reached.after.opens,
      });
      stillReads.push(...stillReading(actor, reached, rows));
    }
  }
  const people = [...before.values()];
  const running = latestByPerson(await runningOffline(deps.db.read, [...ended], deps.clock.now()));
  const out = [...before].filter(([, { opens, still }]) => opens && !still);
  return {
    shutOut: out.filter(([id]) => !running.has(id)).map(([, { name }]) => name),
    readsOn: [...before]
      .filter(([, { still }]) => !still)
      .flatMap(([id, { name }]) => {
        const until = running.get(id);
        return until === undefined ? [] : [{ name, until }];
      }),
    closes: [...closes.values()],
    stillReads,
    ofNone: people.filter(({ opens }) => !opens).length,
    openLinks,
    ...(await beyondRevoking(deps.db.read, [...cut])),
  };
}

/** Whether a grant is one of these, or stands beneath one: then it ends with it. */
function isBelow(
  id: GrantId,
  cut: ReadonlySet<GrantId>,
  parents: ReadonlyMap<GrantId, GrantId | null>,
): boolean {
  const seen = new Set<GrantId>();
  for (let at: GrantId | null | undefined = id; at != null && !seen.has(at); at = parents.get(at)) {
    if (cut.has(at)) return true;
    seen.add(at);
  }
  return false;
}

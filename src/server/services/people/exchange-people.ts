import 'server-only';
import { newId, type GroupId } from '@/core/base/ids';
import { groupBy } from '@/core/base/group';
import { isZone } from '@/core/base/zone-format';
import { isLanguage } from '@/contracts/locale';
import type { BringProgress, PeoplePreview } from '@/contracts/people-exchange';
import { planImport, type Change, type ImportPlan } from '@/core/people/plan';
import { readPeople, type PeopleFormat } from '@/core/people/read';
import { writePeople } from '@/core/people/write';
import type { ReadPeople, StatedPerson } from '@/core/people/person';
import type { Reading, Transaction } from '@/server/db/database';
import {
  changeEverybody,
  everybody,
  groupNames,
  insertEverybody,
  type KnownRecipient,
} from '@/server/repositories/people/people-exchange-repository';
import { listGroups, membersOf } from '@/server/repositories/people/group-repository';
import { findRecipients } from '@/server/repositories/people/recipient-repository';
import { join, makeGroup } from '@/server/services/people/manage-groups';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { record, recordAlone } from '@/server/services/base/record';

/** Rows of each kind that a preview shows. */
const SHOWN = 100;
/** People written by one statement: others look in between. */
const AT_ONCE = 2_000;

type Planned = {
  readonly read: ReadPeople & { readonly format: PeopleFormat };
  readonly plan: ImportPlan<KnownRecipient>;
};

async function planFor(db: Reading | Transaction, text: string): Promise<Planned> {
  const read = readPeople(text, { isZone, isLanguage });
  const known = new Map((await everybody(db)).map((person) => [person.address, person]));
  return { read, plan: planImport(read.people, known) };
}

function words({ name, organisation, zone, language, ownId }: KnownRecipient): string {
  return [name, organisation, zone, language, ownId]
    .filter((part) => part !== null && part !== '')
    .join(', ');
}

/** What a list would change, before anything is. */
export async function previewPeople(
  { db }: Deps,
  _actor: StaffActor,
  { text }: { readonly text: string },
): Promise<PeoplePreview> {
  const { read, plan } = await planFor(db.read, text);
  const joining = await joiningOf(db.read, read.people);
  const problems = [...read.problems, ...plan.problems].sort((a, b) => a.line - b.line);
  return {
    format: read.format,
    groups: joining.map(({ id, name, people, live }) => ({
      name,
      isNew: id === null,
      joining: people.length,
      live,
    })),
    added: plan.added.length,
    changed: plan.changed.length,
    same: plan.same,
    problems: problems.length,
    doubtful: plan.doubtful.slice(0, SHOWN),
    firstAdded: plan.added
      .slice(0, SHOWN)
      .map(({ line, address, name, organisation }) => ({ line, address, name, organisation })),
    firstChanged: plan.changed.slice(0, SHOWN).map(({ line, before, after }) => ({
      line,
      address: before.address,
      before: words(before),
      after: words(after),
    })),
    firstProblems: problems.slice(0, SHOWN),
  };
}

/** A group that people of a list come into: one that is here, or a new one. */
type Joining = {
  readonly id: GroupId | null;
  readonly name: string;
  /** Their email addresses. */
  readonly people: readonly string[];
  /** Dispatches that are for the group as such: who joins is given them. */
  readonly live: number;
};

/** Who of a list would come into which group; nobody leaves one by it. */
async function joiningOf(
  db: Reading | Transaction,
  stated: readonly StatedPerson[],
): Promise<Joining[]> {
  const wanted = stated.flatMap(({ address, groups }) => groups.map((name) => ({ name, address })));
  if (wanted.length === 0) return [];
  const known = await listGroups(db);
  const members = await membersOf(
    db,
    known.map(({ id }) => id),
  );
  const isIn = new Set(members.map(({ group, person }) => `${group} ${person.address}`));
  return [...groupBy(wanted, ({ name }) => name.toLowerCase()).values()].flatMap((all) => {
    const [first] = all;
    const group = known.find(({ name }) => name.toLowerCase() === first?.name.toLowerCase());
    const people = all
      .map(({ address }) => address)
      .filter((address) => group === undefined || !isIn.has(`${group.id} ${address}`));
    if (first === undefined || people.length === 0) return [];
    return [
      { id: group?.id ?? null, name: group?.name ?? first.name, people, live: group?.live ?? 0 },
    ];
  });
}

/** Puts them in, with what was sent to each group as such. @throws ServiceError `NOT_ALLOWED` */
async function joinAll(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  joining: readonly Joining[],
  now: number,
): Promise<void> {
  for (const { id: known, name, people } of joining) {
    const id = known ?? (await makeGroup(deps, tx, actor, name));
    const rows = await findRecipients(tx, people);
    await join(
      deps,
      tx,
      actor,
      id,
      rows.map((row) => row.id),
      now,
    );
  }
}

function stretches<T>(all: readonly T[]): T[][] {
  return Array.from({ length: Math.ceil(all.length / AT_ONCE) }, (_, i) =>
    all.slice(i * AT_ONCE, (i + 1) * AT_ONCE),
  );
}

async function change(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  changes: readonly Change<KnownRecipient>[],
  now: number,
): Promise<void> {
  await changeEverybody(
    tx,
    changes.map(({ after }) => after),
  );
  await record(
    deps,
    tx,
    ...changes.map(({ before, after }) => ({
      action: 'recipient.changed' as const,
      outcome: 'done' as const,
      actor: { kind: 'staff' as const, id: actor.id },
      occurredAt: now,
      recipient: after.id,
      details: {
        imported: true as const,
        before: { zone: before.zone, language: before.language },
        after: { zone: after.zone, language: after.language },
      },
      personal: { text: `${words(before)} → ${words(after)}` },
    })),
  );
}

/**
 * Brings a list of people in, all of it or nothing: the plan is made anew inside the transaction, so
 * that what a colleague changed meanwhile is not overwritten unseen. Nobody is given access by it.
 *
 * @param progress is told how many people are done, of how many
 */
export async function importPeople(
  deps: Deps,
  actor: StaffActor,
  text: string,
  progress: (done: number, all: number) => void,
): Promise<void> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const { read, plan } = await planFor(tx, text);
    const added = plan.added.map(({ line: _line, groups: _groups, ...person }): KnownRecipient => ({
      id: newId('recipient', deps.random),
      ...person,
    }));
    const all = added.length + plan.changed.length;
    let done = 0;
    const step = async (count: number): Promise<void> => {
      done += count;
      progress(done, all);
      // Lets readers be answered in between: each statement holds the process up. Other writers wait.
      await new Promise((resolve) => {
        setImmediate(resolve);
      });
    };
    for (const some of stretches(added)) {
      await insertEverybody(tx, some, now);
      await step(some.length);
    }
    for (const some of stretches(plan.changed)) {
      await change(deps, tx, actor, some, now);
      await step(some.length);
    }
    await joinAll(deps, tx, actor, await joiningOf(tx, read.people), now);
    if (all > 0)
      await record(deps, tx, {
        action: 'people.imported',
        outcome: 'done',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: now,
        details: {
          format: read.format,
          added: added.length,
          changed: plan.changed.length,
          same: plan.same,
          problems: read.problems.length + plan.problems.length,
        },
      });
  });
}

/** The same as lines of JSON that come while it goes on; the last says that it is over, or what was wrong. */
export async function* importPeopleLines(
  deps: Deps,
  actor: StaffActor,
  { text }: { readonly text: string },
): AsyncGenerator<Uint8Array, void> {
  const waiting: BringProgress[] = [];
  let wake: () => void = () => undefined;
  const tell = (progress: BringProgress): void => {
    waiting.push(progress);
    wake();
  };
  let last = { done: 0, all: 0 };
  importPeople(deps, actor, text, (done, all) => {
    last = { done, all };
    tell({ ...last, over: false });
  }).then(
    () => {
      tell({ ...last, over: true });
    },
    () => {
      tell({
        ...last,
        over: true,
        failed: true,
      });
    },
  );
  for (;;) {
    const next = waiting.shift();
    if (next === undefined) {
      await new Promise<void>((resolve) => {
        wake = resolve;
      });
      continue;
    }
    yield Buffer.from(`${JSON.stringify(next)}\n`);
    if (next.over) return;
  }
}

/** Everybody as a file. */
export async function takePeopleOut(
  deps: Deps,
  actor: StaffActor,
  { format }: { readonly format: PeopleFormat },
): Promise<{ readonly text: string; readonly format: PeopleFormat }> {
  const names = await groupNames(deps.db.read);
  const people = (await everybody(deps.db.read)).map((person) => ({
    ...person,
    groups: names.get(person.id) ?? [],
  }));
  await recordAlone(deps, {
    action: 'people.exported',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    details: { format, people: people.length },
  });
  return { text: writePeople(people, format), format };
}

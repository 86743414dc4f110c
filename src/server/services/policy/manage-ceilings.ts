import 'server-only';
import type { DocumentId } from '@/core/base/ids';
import { NO_LIMITS, limitsAnything, type Ceiling } from '@/core/policy/ceiling';
import { reaching } from '@/core/policy/levels';
import type { CeilingChanged, CeilingImpact, CeilingInput, CeilingRow } from '@/contracts/ceiling';
import {
  folderParents,
  listCeilings,
  putCeilingRow,
  removeCeilingRow,
} from '@/server/repositories/policy/ceiling-repository';
import { renewDaysAtMost } from '@/server/repositories/access/effective-end';
import { namesOfStaff } from '@/server/repositories/staff/staff-repository';
import { idleLimits } from '@/core/policy/idle-limits';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { impactOf } from '@/server/services/policy/impact';
import { record } from '@/server/services/base/record';
import {
  needSubject,
  sameSubject as same,
  subjectNames,
} from '@/server/services/base/level-subjects';

/** Every ceiling with the name of what sets it, outermost first. */
export async function viewCeilings(deps: Pick<Deps, 'db'>): Promise<CeilingRow[]> {
  const all = await listCeilings(deps.db.read);
  const [nameOf, staff] = await Promise.all([
    subjectNames(
      deps.db.read,
      all.filter(({ level }) => level === 'document').map(({ subject }) => subject as DocumentId),
    ),
    namesOfStaff(deps.db.read),
  ]);
  return all.map((ceiling) => ({
    ...ceiling,
    name: nameOf(ceiling) ?? '',
    setBy: staff.get(ceiling.setBy) ?? '',
  }));
}

/** The ceilings as they would be with this one in place. */
function withThis(
  all: readonly Ceiling[],
  input: CeilingInput,
  actor: StaffActor,
  now: number,
): Ceiling[] {
  const others = all.filter((each) => !same(each, input));
  return limitsAnything(input.limits)
    ? [
        ...others,
        {
          level: input.level,
          subject: input.subject,
          limits: input.limits,
          setBy: actor.id,
          setAt: now,
        },
      ]
    : others;
}

/** What setting this ceiling would do to everybody, before it is set. */
export async function previewCeiling(
  deps: Deps,
  actor: StaffActor,
  input: CeilingInput,
): Promise<CeilingImpact> {
  await needSubject(deps.db.read, input);
  const now = deps.clock.now();
  const before = await listCeilings(deps.db.read);
  const after = withThis(before, input, actor, now);
  const parents = await folderParents(deps.db.read);
  const both = [...before, ...after];
  const asked = {
    filing: both.some(({ level }) => level === 'marking' || level === 'folder'),
    own: [
      ...new Set(both.filter(({ level }) => level === 'document').map(({ subject }) => subject)),
    ],
  };
  const opens = both.some(({ limits }) => limits.opens !== null);
  const found = await impactOf(
    deps,
    now,
    { ...asked, opens },
    {
      before: (standing) => reaching(standing, before, parents),
      after: (standing) => reaching(standing, after, parents),
    },
  );
  return { ...found, idle: idleLimits(input, after) };
}

/**
 * Sets, changes or takes away a ceiling. It bites at once, for what was given before as well.
 *
 * @returns what it was, so that it can be undone by the same means
 * @throws ServiceError `CONFLICT` where somebody set it since it was seen, `NOT_FOUND`
 */
export async function putCeiling(
  deps: Deps,
  actor: StaffActor,
  input: CeilingInput,
): Promise<CeilingChanged> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    await needSubject(tx, input);
    const known = (await listCeilings(tx)).find((each) => same(each, input));
    if ((known?.setAt ?? null) !== input.seen) throw new ServiceError('ceiling-changed');
    const limiting = limitsAnything(input.limits);
    // Set twice within a millisecond, it would be taken for the one that was seen.
    const setAt = Math.max(now, (known?.setAt ?? 0) + 1);
    if (limiting)
      await putCeilingRow(tx, {
        level: input.level,
        subject: input.subject,
        limits: input.limits,
        setBy: actor.id,
        setAt,
      });
    else await removeCeilingRow(tx, input.level, input.subject);
    await renewDaysAtMost(tx, 'all');
    const before = known?.limits ?? NO_LIMITS;
    await record(deps, tx, {
      action: 'ceiling.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: {
        level: input.level,
        subject: input.subject,
        before: { ...before },
        limits: limiting ? { ...input.limits } : null,
      },
    });
    return { before, setAt: limiting ? setAt : null };
  });
}

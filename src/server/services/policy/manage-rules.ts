import 'server-only';
import { wholeRules } from '@/core/policy/rules';
import type { PutRuleInput, RuleChanged, RuleRow } from '@/contracts/rules';
import {
  listRules,
  putRuleRow,
  dispatchesByWay,
} from '@/server/repositories/policy/rules-repository';
import { namesOfStaff } from '@/server/repositories/staff/staff-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';

/** Every way of handing something out with what was decided about it, by whom and why. */
export async function viewRules(deps: Pick<Deps, 'db'>): Promise<RuleRow[]> {
  const [decided, staff, dispatches] = await Promise.all([
    listRules(deps.db.read),
    namesOfStaff(deps.db.read),
    dispatchesByWay(deps.db.read),
  ]);
  return wholeRules(decided).map((rule) => ({
    ...rule,
    setByName: rule.setBy === null ? '' : (staff.get(rule.setBy) ?? ''),
    dispatches: dispatches.get(rule.way) ?? 0,
  }));
}

/**
 * Decides about a way of handing something out, for what is sent from now on. What went out before
 * stays as it was sent.
 *
 * @returns what it was, so that it can be undone by the same means
 * @throws ServiceError `CONFLICT` where somebody decided since it was seen
 */
export async function putRule(
  deps: Deps,
  actor: StaffActor,
  { way, leave, reason, seen }: PutRuleInput,
): Promise<RuleChanged> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const before = wholeRules(await listRules(tx)).find((rule) => rule.way === way);
    if (before?.setAt !== seen) throw new ServiceError('rule-changed');
    // Decided twice within a millisecond, it would be taken for the one that was seen.
    const setAt = Math.max(now, (seen ?? 0) + 1);
    await putRuleRow(tx, { way, leave, reason, setBy: actor.id, setAt });
    await record(deps, tx, {
      action: 'settings.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: { rule: way, before: before.leave, after: leave, reason },
    });
    return { before: { leave: before.leave, reason: before.reason }, setAt };
  });
}

import 'server-only';
import { judgeWays, waysOf, type Rule, type DispatchWays } from '@/core/policy/rules';
import type { Transaction } from '@/server/db/database';
import { listRules } from '@/server/repositories/policy/rules-repository';
import { namesOfStaff } from '@/server/repositories/staff/staff-repository';
import { ServiceError } from '@/server/services/base/errors';

/** @throws ServiceError `NOT_ALLOWED`, naming who decided so and why */
export async function refuseForbidden(tx: Transaction, forbidden: readonly Rule[]): Promise<void> {
  const [rule] = forbidden;
  if (rule === undefined) return;
  throw new ServiceError('way-forbidden', {
    way: rule.way,
    byDefault: rule.setBy === null,
    setBy: rule.setBy === null ? null : ((await namesOfStaff(tx)).get(rule.setBy) ?? null),
    reason: rule.reason,
  });
}

/** What the rules want of a second person for this. @throws ServiceError `NOT_ALLOWED` */
export async function needsSecond(tx: Transaction, dispatch: DispatchWays): Promise<boolean> {
  const { forbidden, agreed } = judgeWays(await listRules(tx), waysOf(dispatch));
  await refuseForbidden(tx, forbidden);
  return agreed.length > 0;
}

/** @throws ServiceError `NOT_ALLOWED` where this is forbidden, or wants a second person, whom only a dispatch asks */
export async function needAllowed(tx: Transaction, dispatch: DispatchWays): Promise<void> {
  if (await needsSecond(tx, dispatch)) throw new ServiceError('second-person-needed');
}

import 'server-only';
import { judgeWays, waysOf, type Rule, type SendingWays } from '@/core/policy/rules';
import type { Transaction } from '@/server/db/database';
import { listRules } from '@/server/repositories/policy/rules-repository';
import { namesOfStaff } from '@/server/repositories/staff/staff-repository';
import { ServiceError } from '@/server/services/base/errors';

const wayText: Record<Rule['way'], string> = {
  link: 'Sending a link',
  file: 'Sending protected files',
  unprotected: 'Sending unprotected',
  domain: 'Sending to everyone at a domain',
  'open-link': 'A link that asks for no proof',
  'lower-marking': 'Marking lower',
};

/** @throws ServiceError `NOT_ALLOWED`, naming who decided so and why */
export async function refuseForbidden(tx: Transaction, forbidden: readonly Rule[]): Promise<void> {
  const [rule] = forbidden;
  if (rule === undefined) return;
  const by =
    rule.setBy === null
      ? 'It is off until an administrator allows it under Terms.'
      : `${(await namesOfStaff(tx)).get(rule.setBy) ?? 'An administrator'} decided so` +
        `${rule.reason === '' ? '' : `: ${rule.reason}`}. ` +
        'Ask an administrator.';
  throw new ServiceError('NOT_ALLOWED', `${wayText[rule.way]} is not allowed here. ${by}`);
}

/** What the rules want of a second person for this. @throws ServiceError `NOT_ALLOWED` */
export async function needsSecond(tx: Transaction, sending: SendingWays): Promise<boolean> {
  const { forbidden, agreed } = judgeWays(await listRules(tx), waysOf(sending));
  await refuseForbidden(tx, forbidden);
  return agreed.length > 0;
}

/** @throws ServiceError `NOT_ALLOWED` where this is forbidden, or wants a second person, whom only a sending asks */
export async function needAllowed(tx: Transaction, sending: SendingWays): Promise<void> {
  if (await needsSecond(tx, sending))
    throw new ServiceError(
      'NOT_ALLOWED',
      'A second person has to agree to this. Make it a sending of its own: it waits for them.',
    );
}

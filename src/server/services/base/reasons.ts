import 'server-only';
import type { LedgerEvent } from '@/core/ledger/entry';
import type { Transaction } from '@/server/db/database';
import { ServiceError } from '@/server/services/base/errors';
import { readWorkSettings } from '@/server/services/base/work-settings';

/** Why somebody did something, as it is recorded. It may name people, so it can be erased. */
export type Because = Pick<LedgerEvent, 'personal'>;

/** The reason of an act that has none, or whose reason stands elsewhere. */
export const NO_REASON: Because = {};

/** The reason as it is recorded, where one is given. */
export function because(reason: string | undefined): Because {
  return reason === undefined || reason === '' ? NO_REASON : { personal: { text: reason } };
}

/**
 * The same of an act for which the organisation may ask a reason. @throws ServiceError
 * `REASON_NEEDED` where it does and none is given
 */
export async function needBecause(tx: Transaction, reason: string | undefined): Promise<Because> {
  const given = because(reason);
  if (given === NO_REASON && (await readWorkSettings(tx)).reasonsAsked)
    throw new ServiceError('reason-needed');
  return given;
}

import 'server-only';
import { isInTheClear } from '@/core/policy/delivery';
import { type AddPeopleInput } from '@/contracts/dispatch';
import { documentsOfDispatch } from '@/server/repositories/dispatching/dispatch-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { addGrants } from '@/server/services/access/give-grants';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { needAllowed } from '@/server/services/policy/within-rules';
import {
  checkPeople,
  checkShares,
  needDispatch,
  checkDocuments,
  checkSize,
} from '@/server/services/dispatching/check-dispatch';
import { settleRecipients } from '@/server/services/dispatching/settle-recipients';
import { mailLinks } from '@/server/services/dispatching/mail-links';

/**
 * Adds people to a dispatch: they get the documents that it carries, on terms of their own, and
 * everybody else is left as they are.
 *
 * @throws ServiceError `CONFLICT` where somebody is among its people already; else as for a new one
 */
export async function addPeople(
  deps: Deps,
  actor: StaffActor,
  input: AddPeopleInput,
): Promise<{ readonly added: number }> {
  const now = deps.clock.now();
  checkPeople(deps, input, now);
  return deps.db.write(async (tx) => {
    const dispatch = await needDispatch(tx, actor, input.id);
    const { documents: ids, recipients } = await documentsOfDispatch(tx, input.id);
    checkShares(input, ids);
    const documents = await checkDocuments(tx, actor, ids);
    if (dispatch.delivery === 'mail') await checkSize(tx, dispatch.form, documents);
    if (isInTheClear(dispatch.form)) throw new ServiceError('unprotected-adds-nobody');
    await needAllowed(tx, { form: dispatch.form, domains: input.domains });
    const { people, wider } = await settleRecipients(deps, tx, actor, input.id, input, now);
    const already = [...wider, ...people].filter((person) => recipients.has(person.id));
    if (already.length > 0)
      throw new ServiceError('already-recipients', {
        addresses: already.map(({ address }) => address),
      });
    const given = await addGrants(deps, tx, actor, dispatch, {
      documents,
      people: [...wider, ...people],
      now,
    });
    if (dispatch.delivery === 'mail')
      await mailLinks(deps, tx, actor, given, people, { ...dispatch, documents }, now);
    await record(deps, tx, ...given.events);
    return { added: people.length };
  });
}

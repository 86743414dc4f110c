import 'server-only';
import { subjects } from '@/server/mail/subjects';
import { newId } from '@/core/base/ids';
import { bareDomain, domainOf } from '@/core/policy/address';
import { passOnRefusal, passedOnTerms, type PassOnHeld } from '@/core/policy/passing-on';
import { RIGHTS } from '@/core/policy/rights';
import type { PassedOn, PassOnInput } from '@/contracts/reader';
import { dispatchMail } from '@/server/mail/dispatch-mail';
import { findDispatch } from '@/server/repositories/dispatching/dispatch-repository';
import { grantsByIds, termsOf } from '@/server/repositories/access/grant-reader';
import { insertGrants } from '@/server/repositories/access/grant-writer';
import { insertRecipients } from '@/server/repositories/people/recipient-repository';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { findRecipientByAddress, linkOf } from '@/server/repositories/reading/reader-repository';
import {
  countPassedOn,
  organisationAt,
  ownGrantIn,
} from '@/server/repositories/access/wider-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { aboutGiven, newLink } from '@/server/services/access/give-grants';
import { ownPassedOn } from '@/server/services/access/own-passed-on';
import { decideFor } from '@/server/services/policy/decide-access';
import { record } from '@/server/services/base/record';

/**
 * Passes a document on: gives somebody else the same rights or fewer, within what the owner
 * allowed. It never comes to more than the giver has, and ends with theirs.
 *
 * @throws ServiceError `NOT_ALLOWED` with the reason, `NOT_FOUND`, `CONFLICT` where they were given
 * it already
 */
export async function passOn(
  deps: Deps,
  actor: ReaderActor,
  input: PassOnInput,
): Promise<{ readonly passedOn: readonly PassedOn[] }> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const decision = await decideFor(deps, tx, actor, input.document);
    const verdict = decision.outcome === 'refused' ? null : decision.rights['pass-on'];
    if (decision.outcome === 'refused' || verdict?.granted !== true)
      throw new ServiceError('pass-on-refused', { reason: 'not-given' });
    const [[from], giver, found] = [
      await grantsByIds(tx, [verdict.grant]),
      await findRecipientByAddress(tx, actor.address),
      await findDocument(tx, input.document),
    ];
    if (from === undefined || giver === null || found === null || from.recipientId !== giver.id)
      throw new ServiceError('open-it-first');
    // What they hold is what the decision came to, under every ceiling and grant above.
    const rights = RIGHTS.filter((right) => decision.rights[right].granted);
    const print = decision.rights.print;
    const conditions = { ...termsOf(from).conditions, passOn: decision.obligations.passOn };
    const held: PassOnHeld = {
      address: giver.address,
      terms: { ...termsOf(from), rights, until: decision.until, conditions },
      printsLeft: print.granted ? print.printsLeft : 0,
      passedOn: await countPassedOn(tx, from.id),
    };
    const refusal = passOnRefusal(input, held);
    if (refusal !== null) throw new ServiceError('pass-on-refused', { reason: refusal });
    const known = await findRecipientByAddress(tx, input.address);
    const person = known ?? { id: newId('recipient', deps.random), zone: null };
    if (known === null)
      await insertRecipients(tx, [
        {
          id: person.id,
          address: input.address,
          name: '',
          organisation: await organisationAt(tx, domainOf(input.address)),
          createdAt: now,
        },
      ]);
    if ((await ownGrantIn(tx, person.id, from.dispatchId, from.documentId)) !== null)
      throw new ServiceError('given-already');
    const terms = passedOnTerms(input, held);
    const row = {
      id: newId('grant', deps.random),
      dispatchId: from.dispatchId,
      documentId: from.documentId,
      recipientId: person.id,
      rights: terms.rights,
      fromAt: terms.from,
      untilAt: terms.until,
      prints: terms.prints,
      conditions: terms.conditions ?? null,
      termsId: null,
      parentId: from.id,
      passedOnBy: giver.id,
      follows: false,
      givenBy: from.givenBy,
      givenAt: now,
    };
    const there = await linkOf(tx, from.dispatchId, person.id);
    const link = newLink(deps, from.dispatchId, person.id, now);
    await insertGrants(tx, [row], there === null ? [link] : []);
    const [dispatch, organisation] = [
      await findDispatch(tx, from.dispatchId),
      await findOrganisation(tx),
    ];
    const mail = dispatchMail({
      senderName: giver.name === '' ? giver.address : giver.name,
      organisation:
        giver.organisation === '' ? bareDomain(domainOf(giver.address)) : giver.organisation,
      zone: person.zone ?? organisation?.zone ?? 'UTC',
      subject: subjects.passedOn(dispatch?.dispatch.subject ?? found.document.title),
      note: input.note,
      form: 'link',
      titles: [found.document.title],
      from: terms.from,
      ends: [terms.until],
      link: `${deps.publicUrl}/r/${there ?? link.token}`,
      address: input.address,
    });
    await queueMail(tx, [
      {
        id: newId('message', deps.random),
        dispatchId: from.dispatchId,
        recipientId: person.id,
        toAddress: input.address,
        ...mail,
        state: 'waiting',
        nextAttemptAt: now,
        createdAt: now,
      },
    ]);
    await record(deps, tx, {
      ...aboutGiven(row, from.dispatchId, { kind: 'recipient', id: giver.id }, now),
      device: actor.device,
      ...(input.note === '' ? {} : { personal: { text: input.note } }),
    });
  });
  return { passedOn: await ownPassedOn(deps, actor, input.document) };
}

import 'server-only';
import { newId, type RecipientId } from '@/core/base/ids';
import { bareDomain, domainOf } from '@/core/policy/address';
import { passOnRefusal, passedOnTerms, type PassOnHeld } from '@/core/policy/passing-on';
import { RIGHTS, type Terms } from '@/core/policy/rights';
import type { PassedOn, PassOnInput } from '@/contracts/reader';
import { languageOf } from '@/core/base/languages';
import { passedOnSubject } from '@/server/mail/subjects';
import { mailTitles, markingWords, type Titled } from '@/server/services/base/mail-titles';
import { dispatchMail } from '@/server/mail/dispatch-mail';
import {
  findDispatch,
  findLinkOf,
  putLinkToken,
} from '@/server/repositories/dispatching/dispatch-repository';
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
import type { Transaction } from '@/server/db/database';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { aboutGiven, newLink } from '@/server/services/access/give-grants';
import { ownPassedOn } from '@/server/services/access/own-passed-on';
import { decideFor } from '@/server/services/policy/decide-access';
import { needOurs } from '@/server/services/base/trusted-rows';
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
    const { from, giver, document, held } = await heldBy(deps, tx, actor, input);
    const refusal = passOnRefusal(input, held);
    if (refusal !== null) throw new ServiceError('pass-on-refused', { reason: refusal });
    const person = await personAt(deps, tx, input.address, now);
    if ((await ownGrantIn(tx, person.id, from.dispatchId, from.documentId)) !== null)
      throw new ServiceError('given-already');
    const grant = passedGrant(deps, from, person.id, passedOnTerms(input, held), now);
    const there = await linkOf(tx, from.dispatchId, person.id);
    const off = there === null ? await findLinkOf(tx, from.dispatchId, person.id) : null;
    const link = newLink(deps, from.dispatchId, person.id, now);
    await insertGrants(tx, [grant], there === null && off === null ? [link] : []);
    if (off !== null) {
      await needOurs(deps, tx, { links: [off] });
      await putLinkToken(tx, off, link.token);
    }
    const url = `${deps.publicUrl}/r/${there ?? link.token}`;
    const mail = await mailAbout(tx, { giver, person, document, grant, note: input.note, url });
    await queueMail(tx, [
      {
        id: newId('message', deps.random),
        dispatchId: from.dispatchId,
        recipientId: person.id,
        toAddress: person.address,
        replyTo: giver.address,
        ...mail,
        state: 'waiting',
        nextAttemptAt: now,
        createdAt: now,
      },
    ]);
    await record(deps, tx, {
      ...aboutGiven(grant, from.dispatchId, { kind: 'recipient', id: giver.id }, now),
      device: actor.device,
      ...(input.note === '' ? {} : { personal: { text: input.note } }),
    });
  });
  return { passedOn: await ownPassedOn(deps, actor, input.document) };
}

type Grant = Awaited<ReturnType<typeof grantsByIds>>[number];
type Recipient = NonNullable<Awaited<ReturnType<typeof findRecipientByAddress>>>;
type Person = Pick<Recipient, 'id' | 'address' | 'zone' | 'language'>;

/**
 * What somebody holds of a document and may pass on: what the decision came to, under every ceiling
 * and grant above.
 *
 * @throws ServiceError `NOT_ALLOWED` where they may pass nothing on
 */
async function heldBy(
  deps: Deps,
  tx: Transaction,
  actor: ReaderActor,
  { document }: PassOnInput,
): Promise<{
  readonly from: Grant;
  readonly giver: Recipient;
  readonly document: Titled;
  readonly held: PassOnHeld;
}> {
  const decision = await decideFor(deps, tx, actor, document);
  if (decision.outcome === 'refused')
    throw new ServiceError('pass-on-refused', { reason: 'not-given' });
  const { print, 'pass-on': verdict } = decision.rights;
  if (!verdict.granted) throw new ServiceError('pass-on-refused', { reason: 'not-given' });
  const [[from], giver, found] = [
    await grantsByIds(tx, [verdict.grant]),
    await findRecipientByAddress(tx, actor.address),
    await findDocument(tx, document),
  ];
  if (from === undefined || giver === null || found === null || from.recipientId !== giver.id)
    throw new ServiceError('open-it-first');
  return {
    from,
    giver,
    document: found.document,
    held: {
      address: giver.address,
      terms: {
        ...termsOf(from),
        rights: RIGHTS.filter((right) => decision.rights[right].granted),
        until: decision.until,
        conditions: { ...termsOf(from).conditions, passOn: decision.obligations.passOn },
      },
      printsLeft: print.granted ? print.printsLeft : 0,
      passedOn: await countPassedOn(tx, from.id),
    },
  };
}

/** The person at an address: known already, or from now on. */
async function personAt(
  deps: Deps,
  tx: Transaction,
  address: string,
  now: number,
): Promise<Person> {
  const known = await findRecipientByAddress(tx, address);
  if (known !== null) return known;
  const id = newId('recipient', deps.random);
  const organisation = await organisationAt(tx, domainOf(address));
  await insertRecipients(tx, [{ id, address, name: '', organisation, createdAt: now }]);
  return { id, address, zone: null, language: null };
}

/** A grant beneath another, in the same dispatch. */
function passedGrant(deps: Deps, from: Grant, person: RecipientId, terms: Terms, now: number) {
  return {
    id: newId('grant', deps.random),
    dispatchId: from.dispatchId,
    documentId: from.documentId,
    recipientId: person,
    rights: terms.rights,
    fromAt: terms.from,
    untilAt: terms.until,
    prints: terms.prints,
    conditions: terms.conditions ?? null,
    termsId: null,
    parentId: from.id,
    passedOnBy: from.recipientId,
    follows: false,
    givenBy: from.givenBy,
    givenAt: now,
  };
}

type Passed = {
  readonly giver: Recipient;
  readonly person: Person;
  readonly document: Titled;
  readonly grant: ReturnType<typeof passedGrant>;
  readonly note: string;
  readonly url: string;
};

/** The email to whom something is passed on, in the name of the one who does. */
async function mailAbout(
  tx: Transaction,
  { giver, person, document, grant, note, url }: Passed,
): Promise<ReturnType<typeof dispatchMail>> {
  const language = languageOf(person.language);
  const title = (await mailTitles(tx))(document, language);
  const dispatch = await findDispatch(tx, grant.dispatchId);
  const organisation = await findOrganisation(tx);
  return dispatchMail({
    senderName: giver.name === '' ? giver.address : giver.name,
    organisation:
      giver.organisation === '' ? bareDomain(domainOf(giver.address)) : giver.organisation,
    zone: person.zone ?? organisation?.zone ?? 'UTC',
    language,
    subject: passedOnSubject(dispatch?.dispatch.subject ?? title, language),
    note,
    byMarking: (await markingWords(tx))([document]),
    form: 'link',
    titles: [title],
    rights: RIGHTS.filter((right) => grant.rights.includes(right)),
    from: grant.fromAt,
    ends: [grant.untilAt],
    link: url,
    address: person.address,
  });
}

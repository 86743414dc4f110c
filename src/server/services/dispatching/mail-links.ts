import 'server-only';
import { newId, type VersionId } from '@/core/base/ids';
import { groupBy } from '@/core/base/group';
import type { LedgerEvent } from '@/core/ledger/entry';
import { underCeilings } from '@/core/policy/ceiling';
import { isInTheClear, type DeliveryForm } from '@/core/policy/delivery';
import { RIGHTS, type Right } from '@/core/policy/rights';
import { windowState } from '@/core/policy/decide';
import { type MailAgainInput } from '@/contracts/dispatch';
import type { Reading, Transaction } from '@/server/db/database';
import { fillFields } from '@/core/message/fields';
import { dispatchMail, endsWords } from '@/server/mail/dispatch-mail';
import { languageOf } from '@/core/base/languages';
import { mailTitles, markingWords } from '@/server/services/base/mail-titles';
import { linksToMail } from '@/server/services/dispatching/change-link';
import { grantsOf, toFacts } from '@/server/repositories/access/grant-reader';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ceilingFinder } from '@/server/services/policy/document-policy';
import { type Given } from '@/server/services/access/give-grants';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { type Filed, needDispatch } from '@/server/services/dispatching/check-dispatch';
import type { Settled } from '@/server/services/dispatching/settle-recipients';

/** Somebody a message is made for. */
type Addressed = Omit<Settled, 'id'>;

type Message = {
  readonly subject: string;
  readonly note: string;
  readonly noteInMail: boolean;
  readonly form: DeliveryForm;
  readonly documents: readonly (Filed & {
    readonly title: string;
    readonly reference: string;
    readonly versionId: VersionId;
  })[];
};

/** Queues to each person the message with their link or protected files. */
export async function mailLinks(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  { id, tokens }: Pick<Given, 'id' | 'tokens'>,
  people: readonly Settled[],
  message: Message,
  now: number,
): Promise<void> {
  const mailOf = await mailMaker(deps, tx, actor, message, now);
  await queueMail(
    tx,
    people.map((person) => {
      const { documents, parts: _parts, ...mail } = mailOf(person, tokens.get(person.id) ?? '');
      return {
        id: newId('message', deps.random),
        dispatchId: id,
        recipientId: person.id,
        toAddress: person.address,
        replyTo: actor.email,
        ...mail,
        attached: message.form !== 'link' ? documents.map(({ versionId }) => versionId) : [],
        state: 'waiting' as const,
        nextAttemptAt: now,
        createdAt: now,
      };
    }),
  );
}

/** The rights that each of several documents comes with, where they are the same; null: they differ. */
function alike(each: readonly (readonly Right[])[]): readonly Right[] | null {
  const [first] = each;
  return first !== undefined && each.every((rights) => rights.join() === first.join())
    ? RIGHTS.filter((right) => first.includes(right))
    : null;
}

/** Makes the message of a dispatch to one person after another. */
export async function mailMaker(
  deps: Pick<Deps, 'publicUrl'>,
  tx: Reading | Transaction,
  actor: Pick<StaffActor, 'name'>,
  { subject, note, noteInMail, form, documents }: Message,
  now: number,
) {
  const organisation = await findOrganisation(tx);
  const ceilingsOf = await ceilingFinder(tx);
  const titleOf = await mailTitles(tx);
  const wordsOf = await markingWords(tx);
  return (person: Addressed, token: string) => {
    const theirs = documents.filter(({ id }) => person.without?.includes(id) !== true);
    // What is told is what opens: the end that ceilings leave.
    const opens = theirs.map(
      (document) => underCeilings(person.terms, person.givenAt ?? now, ceilingsOf(document)).terms,
    );
    const ends = opens.map(({ until }) => until);
    const zone = person.zone ?? organisation?.zone ?? 'UTC';
    const language = languageOf(person.language);
    const titles = theirs.map((document) => titleOf(document, language));
    const mail = dispatchMail({
      senderName: actor.name,
      organisation: organisation?.name ?? '',
      zone,
      language,
      subject,
      note: noteInMail
        ? fillFields(note, {
            recipient: person.name || person.address,
            organisation: person.organisation,
            documents: titles.join(', '),
            ends: endsWords(ends, zone, language),
            sender: actor.name,
          })
        : '',
      byMarking: wordsOf(theirs),
      form,
      titles,
      rights: isInTheClear(form) ? null : alike(opens.map(({ rights }) => rights)),
      from: person.terms.from,
      ends,
      link: `${deps.publicUrl}/r/${token}`,
      address: person.address,
    });
    return { ...mail, documents: theirs };
  };
}

/**
 * Mails their link once more to people of a dispatch who could open something of it now. What was
 * carried by hand is not mailed.
 *
 * @throws ServiceError `CONFLICT` where nobody among them could open anything, `NOT_ALLOWED`
 */
export async function mailAgain(
  deps: Deps,
  actor: StaffActor,
  input: MailAgainInput,
): Promise<{ readonly mailed: number }> {
  const now = deps.clock.now();
  if (deps.mailer === null) throw new ServiceError('mail-not-set-up');
  return deps.db.write(async (tx) => {
    const dispatch = await needDispatch(tx, actor, input.id);
    if (isInTheClear(dispatch.form)) throw new ServiceError('unprotected-not-again');
    if (dispatch.delivery !== 'mail') throw new ServiceError('links-by-hand');
    const rows = (await grantsOf(tx, { dispatch: input.id })).filter(
      ({ grant, recipient, document }) =>
        input.recipients.includes(recipient.id) &&
        recipient.kind === 'person' &&
        !recipient.blocked &&
        document.revokedAt === null &&
        windowState(toFacts(grant), now) !== 'revoked' &&
        windowState(toFacts(grant), now) !== 'expired',
    );
    const people = [...groupBy(rows, ({ recipient }) => recipient.id).values()].flatMap((own) =>
      own.slice(0, 1).map(({ recipient, grant }): Settled => ({
        id: recipient.id,
        address: recipient.address,
        name: recipient.name,
        organisation: recipient.organisation,
        zone: recipient.zone,
        language: recipient.language,
        terms: toFacts(grant).terms,
        givenAt: grant.givenAt,
      })),
    );
    if (people.length === 0) throw new ServiceError('nobody-could-open');
    const documents = [...new Map(rows.map(({ document }) => [document.id, document])).values()];
    await mailLinks(
      deps,
      tx,
      actor,
      { id: input.id, tokens: await linksToMail(deps, tx, actor, input.id, people) },
      people,
      { ...dispatch, documents },
      now,
    );
    await record(
      deps,
      tx,
      ...people.map(({ id }): LedgerEvent => ({
        action: 'dispatch.mailed-again',
        outcome: 'done',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: now,
        dispatch: input.id,
        recipient: id,
      })),
    );
    return { mailed: people.length };
  });
}

import 'server-only';
import { languageOf } from '@/core/base/languages';
import { newId, type DocumentId } from '@/core/base/ids';
import type { AnswerRevisionInput, Revisions, TellInput } from '@/contracts/revisions';
import type { Transaction } from '@/server/db/database';
import { revisionAnsweredMail, versionMail } from '@/server/mail/revision-mail';
import { noteTold, openVersion } from '@/server/repositories/documents/version-repository';
import { queueMail } from '@/server/repositories/mailing/mail-repository';
import { recipientsByIds } from '@/server/repositories/people/people-repository';
import { revisionsOf, setRevisionAnswer } from '@/server/repositories/reading/revision-repository';
import { grantRows } from '@/server/services/access/grant-rows';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { mailTitles } from '@/server/services/base/mail-titles';
import { because } from '@/server/services/base/reasons';
import { record } from '@/server/services/base/record';
import { needOwnDocument } from '@/server/services/documents/own-document';

const needOwn = (deps: Pick<Deps, 'db'>, actor: StaffActor, id: DocumentId) =>
  needOwnDocument(deps, actor, id, 'revisions-of-others');

type Row = Awaited<ReturnType<typeof revisionsOf>>[number];

/** What was sent back of a document, for those who answer for it. @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
export async function documentRevisions(
  deps: Pick<Deps, 'db'>,
  actor: StaffActor,
  { id }: { readonly id: DocumentId },
): Promise<Revisions> {
  const { version } = await needOwn(deps, actor, id);
  const rows = await revisionsOf(deps.db.read, id);
  return {
    current: version.number,
    currentPages: version.pages,
    revisions: rows.map(({ revision, version: sent, recipient, basedOn }) => ({
      id: revision.id,
      number: sent.number,
      fileName: sent.fileName,
      pages: sent.pages,
      bytes: sent.bytes,
      note: revision.note,
      sentAt: revision.sentAt,
      state: revision.state,
      answer: revision.answer,
      recipientId: recipient.id,
      name: recipient.name,
      address: recipient.address,
      basedOn,
    })),
  };
}

/** Where somebody is written to about a document: by the link they have it by. */
async function linksOf(deps: Deps, actor: StaffActor, document: DocumentId) {
  const now = deps.clock.now();
  const rows = (await grantRows(deps, actor, { document })).filter(
    (row) => row.kind === 'person' && !row.linkOff,
  );
  const isLive = (row: (typeof rows)[number]): boolean =>
    row.revokedAt === null &&
    !row.blocked &&
    !row.documentRevoked &&
    !row.keyDestroyed &&
    (row.from ?? 0) <= now &&
    (row.until ?? Number.MAX_SAFE_INTEGER) > now;
  return { all: rows, live: rows.filter(isLive) };
}

async function tellReviser(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  { row, link, accept, words }: AnswerRevisionInput & { readonly row: Row; readonly link: string },
): Promise<void> {
  const { recipient, document } = row;
  const language = languageOf(recipient.language);
  const titleOf = await mailTitles(tx);
  const now = deps.clock.now();
  await queueMail(tx, [
    {
      id: newId('message', deps.random),
      toAddress: recipient.address,
      replyTo: actor.email,
      ...revisionAnsweredMail({
        senderName: actor.name,
        title: titleOf(document, language),
        accepted: accept,
        words,
        link,
        language,
      }),
      state: 'waiting',
      urgent: true,
      nextAttemptAt: now,
      createdAt: now,
    },
  ]);
}

/**
 * Accepts a changed file, which opens from now on wherever the document does, or declines it. Whoever
 * sent it is told.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`, `CONFLICT` where it was answered already
 */
export async function answerRevision(
  deps: Deps,
  actor: StaffActor,
  input: AnswerRevisionInput,
): Promise<Revisions> {
  const { id, revision, accept, words } = input;
  await needOwn(deps, actor, id);
  const links = await linksOf(deps, actor, id);
  await deps.db.write(async (tx) => {
    const row = (await revisionsOf(tx, id)).find((each) => each.revision.id === revision);
    if (row?.revision.state !== 'waiting') throw new ServiceError('revision-answered');
    const { version, recipient } = row;
    if (accept && version.wrappedKey === null) throw new ServiceError('key-destroyed');
    const now = deps.clock.now();
    await setRevisionAnswer(tx, revision, {
      state: accept ? 'accepted' : 'declined',
      answer: words,
      answeredBy: actor.id,
      answeredAt: now,
    });
    if (accept) await openVersion(tx, id, version.id);
    const link = links.all.find((each) => each.recipientId === recipient.id)?.link;
    if (link !== undefined) await tellReviser(deps, tx, actor, { ...input, row, link });
    const about = {
      outcome: 'done' as const,
      actor: { kind: 'staff' as const, id: actor.id },
      occurredAt: now,
      document: id,
      version: version.id,
    };
    const { number, pages, bytes } = version;
    await record(
      deps,
      tx,
      {
        action: 'revision.answered',
        ...about,
        recipient: recipient.id,
        details: { revision, number, accepted: accept },
        ...(words === '' ? {} : { personal: { text: words } }),
      },
      ...(accept
        ? [{ action: 'document.revised' as const, ...about, details: { number, pages, bytes } }]
        : []),
    );
  });
  return documentRevisions(deps, actor, { id });
}

/**
 * Mails everybody who can open a document that a new version took its place, each the link they have.
 * Once a version.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`, `CONFLICT` where they were told already
 */
export async function tellOfVersion(
  deps: Deps,
  actor: StaffActor,
  { id, reason }: TellInput,
): Promise<{ readonly people: number }> {
  const { document, version } = await needOwn(deps, actor, id);
  const { live } = await linksOf(deps, actor, id);
  const byPerson = new Map(live.map((row) => [row.recipientId, row]));
  const people = await recipientsByIds(deps.db.read, [...byPerson.keys()]);
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    if (!(await noteTold(tx, version.id, now))) throw new ServiceError('version-told');
    const titleOf = await mailTitles(tx);
    await queueMail(
      tx,
      people.map((person) => {
        const language = languageOf(person.language);
        return {
          id: newId('message', deps.random),
          toAddress: person.address,
          replyTo: actor.email,
          ...versionMail({
            senderName: actor.name,
            title: titleOf(document, language),
            link: byPerson.get(person.id)?.link ?? '',
            language,
          }),
          state: 'waiting' as const,
          urgent: false,
          nextAttemptAt: now,
          createdAt: now,
        };
      }),
    );
    await record(deps, tx, {
      action: 'version.told',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      document: id,
      version: version.id,
      details: { number: version.number, people: people.length },
      ...because(reason),
    });
  });
  return { people: people.length };
}

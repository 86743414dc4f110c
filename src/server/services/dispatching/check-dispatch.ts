import 'server-only';
import { type DispatchId, type DocumentId, type VersionId } from '@/core/base/ids';
import type { Terms } from '@/core/policy/rights';
import { reaches } from '@/core/policy/permissions';
import {
  carriesFile,
  isInTheClear,
  keepForbiddenBy,
  type DeliveryForm,
} from '@/core/policy/delivery';
import { MOST_MAILED, type DispatchInput } from '@/contracts/dispatch';
import type { Transaction } from '@/server/db/database';
import { findDispatch } from '@/server/repositories/dispatching/dispatch-repository';
import {
  bytesOfVersions,
  findDocuments,
  localAmong,
} from '@/server/repositories/documents/document-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ceilingFinder } from '@/server/services/policy/document-policy';
import { ServiceError } from '@/server/services/base/errors';

/** Whom a dispatch is for, and on what terms. */
export type People = Pick<
  DispatchInput,
  'recipients' | 'groups' | 'domains' | 'openLink' | 'terms' | 'kept'
>;

/** Every document must be there and live: what nobody could open is not sent. */
export async function checkDocuments(
  tx: Transaction,
  actor: StaffActor,
  ids: readonly DocumentId[],
) {
  const found = await findDocuments(tx, ids);
  if (found.length !== new Set(ids).size) throw new ServiceError('a-document-gone');
  const foreign = found.find(
    (document) => !reaches(actor, { owner: document.ownerId, deputy: document.deputyId }),
  );
  if (foreign !== undefined) throw new ServiceError('title-of-others', { title: foreign.title });
  const revoked = found.find((document) => document.revokedAt !== null);
  if (revoked !== undefined) throw new ServiceError('title-revoked', { title: revoked.title });
  return found;
}

/** @throws ServiceError `MAIL_NOT_SET_UP`, `INVALID` */
export function checkPeople(deps: Deps, people: People, now: number): void {
  if (deps.mailer === null) throw new ServiceError('mail-not-set-up-for-codes');
  const own = addresseesOf(people).flatMap(({ terms }) => (terms == null ? [] : [terms]));
  if ([people.terms, ...own].some(({ until }) => until !== null && until <= now))
    throw new ServiceError('an-end-past');
}

/** Everybody who is addressed, and what stands for many, with what is their own. */
function addresseesOf({ recipients, groups = [], domains = [], openLink = null }: People) {
  return [...recipients, ...groups, ...domains, ...(openLink === null ? [] : [openLink])];
}

/**
 * Somebody has to be given each document, and everybody at least one.
 *
 * @throws ServiceError `INVALID`
 */
export function checkShares(people: People, documents: readonly DocumentId[]): void {
  const shares = addresseesOf(people).map(({ without = [] }) =>
    documents.filter((id) => !without.includes(id)),
  );
  if (shares.some((share) => share.length === 0)) throw new ServiceError('given-nothing');
  if (documents.some((id) => shares.every((share) => !share.includes(id))))
    throw new ServiceError('document-for-nobody');
}

/** Where a document lies, which is what ceilings reach it by. */
export type Filed = Parameters<Awaited<ReturnType<typeof ceilingFinder>>>[0];

/** What is mailed has to fit into a message. @throws ServiceError `TOO_LARGE` */
export async function checkSize(
  tx: Transaction,
  form: DeliveryForm,
  documents: readonly { readonly versionId: VersionId }[],
): Promise<void> {
  if (!carriesFile(form) && !isInTheClear(form)) return;
  const bytes = await bytesOfVersions(
    tx,
    documents.map(({ versionId }) => versionId),
  );
  if (bytes > MOST_MAILED)
    throw new ServiceError('too-large-to-mail', { bytes, most: MOST_MAILED });
}

/**
 * What was encrypted on its sender's machine is not here: it cannot be attached, and is read on
 * people's own machines or nowhere.
 *
 * @throws ServiceError `INVALID`
 */
export async function checkLocal(
  tx: Transaction,
  form: DeliveryForm,
  documents: readonly { readonly versionId: VersionId; readonly title: string }[],
  terms: readonly Pick<Terms, 'conditions'>[],
): Promise<void> {
  const local = await localAmong(
    tx,
    documents.map(({ versionId }) => versionId),
  );
  const found = documents.find(({ versionId }) => local.has(versionId));
  if (found === undefined) return;
  const { title } = found;
  if (carriesFile(form) || isInTheClear(form)) throw new ServiceError('local-by-hand', { title });
  if (terms.some(({ conditions }) => conditions?.offline == null))
    throw new ServiceError('local-needs-own-machine', { title });
}

/** Whether it could be sent as it stands. @throws ServiceError as for `dispatchDocuments` */
export async function checkDispatch(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  input: DispatchInput,
  now: number,
) {
  checkPeople(deps, input, now);
  checkShares(input, input.documents);
  const documents = await checkDocuments(tx, actor, input.documents);
  const own = addresseesOf(input).map(({ terms }) => terms ?? input.terms);
  await checkLocal(tx, input.form ?? 'link', documents, own);
  if (input.delivery === 'mail') await checkSize(tx, input.form ?? 'link', documents);
  if (isInTheClear(input.form ?? 'link')) {
    checkUnprotected(input);
    await checkKept(tx, documents);
  }
  return documents;
}

/** @throws ServiceError `INVALID` */
function checkUnprotected({
  delivery,
  reason = '',
  groups = [],
  domains = [],
  openLink = null,
}: DispatchInput): void {
  if (reason === '') throw new ServiceError('unprotected-needs-reason');
  if (delivery !== 'mail') throw new ServiceError('unprotected-by-hand');
  if (openLink !== null || groups.length + domains.length > 0)
    throw new ServiceError('unprotected-by-name');
}

/**
 * Anyone who has it in the clear keeps it: what nobody may keep does not go out so, no matter who asks.
 * @throws ServiceError `NOT_ALLOWED`
 */
async function checkKept(
  tx: Transaction,
  documents: Awaited<ReturnType<typeof checkDocuments>>,
): Promise<void> {
  const ceilingsOf = await ceilingFinder(tx);
  for (const document of documents) {
    const ceiling = keepForbiddenBy(ceilingsOf(document));
    if (ceiling === null) continue;
    throw new ServiceError('keep-forbidden', { title: document.title, level: ceiling.level });
  }
}

/** @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` where it is somebody else's */
export async function needDispatch(tx: Transaction, actor: StaffActor, id: DispatchId) {
  const found = await findDispatch(tx, id);
  if (found === null) throw new ServiceError('no-dispatch');
  if (!reaches(actor, { sender: found.dispatch.sentBy }))
    throw new ServiceError('dispatch-of-others');
  return found.dispatch;
}

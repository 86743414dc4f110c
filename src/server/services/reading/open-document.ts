import 'server-only';
import { carriesFile } from '@/core/policy/delivery';
import { isAppError } from '@/core/base/errors';
import { newId, type DispatchId, type DocumentId, type GrantId } from '@/core/base/ids';
import { DAY, HOUR } from '@/core/base/time';
import type { Details } from '@/core/ledger/details';
import type { Decision, RefusalReason } from '@/core/policy/decide';
import { watermarkUnder } from '@/core/policy/defaults';
import { RIGHTS } from '@/core/policy/rights';
import { deviceLabel } from '@/core/insight/device-label';
import type { Watermark } from '@/core/watermark/layers';
import type { OpenResult } from '@/contracts/reader';
import type { Transaction } from '@/server/db/database';
import { findDispatch } from '@/server/repositories/dispatching/dispatch-repository';
import { grantsByIds } from '@/server/repositories/access/grant-reader';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import {
  carries,
  findRecipientByAddress,
  insertLicence,
  openLicences,
  type LicenceRow,
} from '@/server/repositories/reading/reader-repository';
import { filledFor } from '@/server/services/policy/mark-facts';
import { decideFor } from '@/server/services/policy/decide-access';
import { ContentError } from '@/core/pages/errors';
import { noteDamaged } from '@/server/services/documents/check-contents';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { defaultsFinder } from '@/server/services/policy/manage-defaults';
import { ownRequests } from '@/server/services/requests/ask-for-more';
import { actorOf, record, whereabouts } from '@/server/services/base/record';
import { ownGrant } from '@/server/services/access/wider-access';
import { noticeDue } from '@/server/services/reading/reader-notice';
import { wayTo, type Way } from '@/server/services/reading/way-here';
import { openState } from '@/server/services/reading/open-state';
import { payloadKeyOf, sealedPages } from '@/server/services/documents/sealed-source';

/** How long one open can go on before it is decided anew: turning pages inside it is not another open. */
const OPEN_LASTS = 12 * HOUR;

type Granted = Decision & { readonly outcome: 'granted' };
type RefusedOpen = {
  readonly reason: RefusalReason;
  readonly document: DocumentId | null;
  /** What refused, where a rule did. */ readonly source?: (Decision & {
    readonly outcome: 'refused';
  })['source'];
};
/** A licence, new or taken up again. `key`: what a new one took from the vault. */
type Issued = {
  readonly outcome: 'granted';
  readonly decision: Granted;
  readonly licence: LicenceRow;
  readonly key: Uint8Array | null;
};
/** What a transaction came to: a licence, or a refusal that it wrote down. */
type Opening =
  | Issued
  | { readonly outcome: 'refused'; readonly reason: RefusalReason; readonly at: number | null };

/** By which link somebody came: the dispatch it is of, where that is another one, and whose it is. */
function aboutWay(way: Way, dispatch: DispatchId | null): Details['document.opened'] {
  return {
    ...(way.dispatch === null || dispatch === way.dispatch ? {} : { via: way.dispatch }),
    ...(way.linkOf === null ? {} : { linkOf: way.linkOf }),
  };
}

/**
 * Records a refused open, in the transaction that decided. It names the dispatch of the grant that
 * refused, and the link's where that is another one.
 */
export async function recordRefusal(
  deps: Deps,
  tx: Transaction,
  actor: ReaderActor,
  way: Way,
  { reason, document, source = null }: RefusedOpen,
): Promise<void> {
  const recipient = await findRecipientByAddress(tx, actor.address);
  const dispatch = (await dispatchOf(tx, source?.grant)) ?? way.dispatch;
  const rule = source?.grant ?? source?.level;
  await record(deps, tx, {
    action: 'document.opened',
    outcome: 'refused',
    reason,
    actor: actorOf({ ...actor, recipient: recipient?.id ?? null }),
    occurredAt: deps.clock.now(),
    device: actor.device,
    ...(rule === undefined ? {} : { rule }),
    ...named({ dispatch, document, recipient: recipient?.id ?? null }),
    details: aboutWay(way, dispatch),
    personal: { address: actor.address, ...whereabouts(deps, actor.from) },
  });
}

/** What an entry names, without what there is not. */
function named<T extends object>(names: T): { [K in keyof T]?: NonNullable<T[K]> } {
  return Object.fromEntries(Object.entries(names).filter(([, name]) => name !== null)) as {
    [K in keyof T]?: NonNullable<T[K]>;
  };
}

function network(text: string): string {
  return text.startsWith('::ffff:') ? text.slice(7) : text;
}

async function dispatchOf(
  tx: Transaction,
  grant: GrantId | null | undefined,
): Promise<DispatchId | null> {
  const [row] = grant == null ? [] : await grantsByIds(tx, [grant]);
  return row?.dispatchId ?? null;
}

/**
 * The watermark of an open: that of the dispatch its grant came with, and all that the levels
 * around the document require. The link used has no part in it.
 */
async function watermarkFor(
  deps: Deps,
  tx: Transaction,
  actor: ReaderActor,
  dispatch: { readonly reference: string; readonly watermark: Watermark },
  found: NonNullable<Awaited<ReturnType<typeof findDocument>>>,
): Promise<Watermark> {
  const recipient = await findRecipientByAddress(tx, actor.address);
  const { document } = found;
  const around = (await defaultsFinder(tx))({
    document: document.id,
    marking: document.markingId,
    folder: document.folderId,
  });
  const opener = {
    name: recipient?.name ?? '',
    address: actor.address,
    organisation: recipient?.organisation ?? '',
    network: network(actor.from.network),
    device: deviceLabel(actor.from.agent),
    dispatch: dispatch.reference,
  };
  return filledFor(tx, watermarkUnder(dispatch.watermark, around), found, opener, deps.clock.now());
}

/** An open of this document on this device that goes on, if there is one: coming back to it is not another open. */
async function takenUpAgain(
  deps: Deps,
  tx: Transaction,
  actor: ReaderActor,
  document: DocumentId,
  version: string,
): Promise<Opening | null> {
  for (const licence of await openLicences(tx, actor.device, document, deps.clock.now())) {
    if (licence.versionId !== version) continue;
    const decision = await decideFor(deps, tx, actor, document, {
      licence: licence.id,
      grant: licence.grantId,
    });
    if (decision.outcome === 'granted' && decision.charged === licence.grantId)
      return { outcome: 'granted', decision, licence, key: null };
  }
  return null;
}

/** Decides and charges in one transaction. */
async function openIn(
  deps: Deps,
  tx: Transaction,
  actor: ReaderActor,
  way: Way,
  documentId: DocumentId,
): Promise<Opening> {
  // A link leads to what its dispatch carries, and to nothing else.
  const leads = way.dispatch !== null && (await carries(tx, way.dispatch, documentId));
  const found = leads ? await findDocument(tx, documentId) : null;
  if (found === null) {
    await recordRefusal(deps, tx, actor, way, { reason: 'not-addressed', document: null });
    return { outcome: 'refused', reason: 'not-addressed', at: null };
  }
  const again = await takenUpAgain(deps, tx, actor, documentId, found.version.id);
  if (again !== null) return again;
  const decision = await decideFor(deps, tx, actor, documentId);
  if (decision.outcome === 'refused') {
    const { reason, source, at } = decision;
    await recordRefusal(deps, tx, actor, way, { reason, document: documentId, source });
    return { outcome: 'refused', reason, at };
  }
  // Asked of those alone who could open it: a stranger learns nothing, not even this.
  if ((await noticeDue(tx, actor.address)) !== null) throw new ServiceError('notice-due');
  return asOpened(deps, tx, actor, await issue(deps, tx, actor, way, found, decision));
}

/**
 * The end is told as it is once this open counts: a span from the first open on has begun with it,
 * here or in the grant above.
 */
async function asOpened(
  deps: Deps,
  tx: Transaction,
  actor: ReaderActor,
  issued: Issued,
): Promise<Issued> {
  const { id, grantId, documentId } = issued.licence;
  const [grant] = await grantsByIds(tx, [grantId]);
  if (grant?.conditions?.within == null && grant?.passedOnBy == null) return issued;
  const decision = await decideFor(deps, tx, actor, documentId, { licence: id, grant: grantId });
  return decision.outcome === 'granted' ? { ...issued, decision } : issued;
}

/** Issues a licence for what was decided, and takes the key from the vault. */
async function issue(
  deps: Deps,
  tx: Transaction,
  actor: ReaderActor,
  way: Way,
  found: NonNullable<Awaited<ReturnType<typeof findDocument>>>,
  decision: Granted,
): Promise<Issued> {
  const { document, version } = found;
  const now = deps.clock.now();
  // Somebody who comes in along with others is a person with a grant of their own from here on.
  const charged = await ownGrant(deps, tx, actor, decision.charged, now);
  const recipient = await findRecipientByAddress(tx, actor.address);
  const dispatch = (await dispatchOf(tx, charged)) ?? way.dispatch;
  const sent = dispatch === null ? null : await findDispatch(tx, dispatch);
  if (version.wrappedKey === null || recipient === null || sent === null)
    throw new ServiceError('document-gone');
  const watermark = await watermarkFor(deps, tx, actor, sent.dispatch, found);
  const id = newId('licence', deps.random);
  const rights = RIGHTS.filter((right) => decision.rights[right].granted);
  const expiresAt = Math.min(now + OPEN_LASTS, decision.until ?? now + DAY);
  // Signing waits for no disk and no network, so it may be awaited inside.
  const statement = await deps.signLicence({
    id,
    grant: charged,
    document: document.id,
    version: version.id,
    recipient: recipient.id,
    device: actor.device,
    rights,
    watermark,
    issuedAt: now,
    expiresAt,
  });
  const fileKey = deps.vault.unwrap(
    { wrapped: version.wrappedKey, generation: version.keyGeneration },
    version.id,
  );
  const key = payloadKeyOf(deps, sealedPages(version), fileKey);
  const licence = {
    id,
    grantId: charged,
    documentId: document.id,
    versionId: version.id,
    recipientId: recipient.id,
    deviceId: actor.device,
    watermark,
    statement,
    openedAt: now,
    expiresAt,
    keyGivenAt: null,
    offlineUntil: null,
    offlineOpens: 0,
  };
  await insertLicence(tx, licence);
  const details: Details['document.opened'] = { rights, ...aboutWay(way, sent.dispatch.id) };
  const about = {
    actor: { kind: 'recipient' as const, id: recipient.id },
    occurredAt: now,
    document: document.id,
    version: version.id,
    recipient: recipient.id,
    grant: charged,
    dispatch: sent.dispatch.id,
    device: actor.device,
    licence: id,
  };
  await record(
    deps,
    tx,
    {
      action: 'document.opened',
      outcome: 'granted',
      rule: charged,
      ...about,
      details,
      personal: { address: actor.address, ...whereabouts(deps, actor.from) },
    },
    { action: 'key.unwrapped', outcome: 'done', ...about, details: { for: 'open' } },
  );
  return { outcome: 'granted', decision, licence, key };
}

/**
 * One open: decides, and where the answer is yes, issues a licence and takes the key from the vault.
 * A refusal is an answer, recorded with its reason; to someone never addressed it names nobody.
 *
 * @throws ServiceError `NOT_FOUND`, `TOO_MANY`, `NOTICE_DUE` where nothing stands in the way but a
 * notice that has to be accepted first
 */
export async function openDocument(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly token: string | null; readonly document: DocumentId },
): Promise<OpenResult> {
  const way = await wayTo(deps, actor, input);
  const wait = await deps.limits.opens(actor.address);
  if (wait > 0) throw tooMany(wait);
  const opening = await deps.db
    .write((tx) => openIn(deps, tx, actor, way, input.document))
    .catch(async (error: unknown) => {
      if (!(isAppError(error) && error.name === 'AgeError')) throw error;
      const harmed = await findDocument(deps.db.read, input.document);
      if (harmed !== null) await noteDamaged(deps, harmed.version.id);
      throw new ContentError('CONTENT_DAMAGED', { cause: error });
    });
  if (opening.outcome === 'refused') {
    const known = opening.reason !== 'not-addressed';
    return {
      outcome: 'refused',
      reason: opening.reason,
      at: opening.at,
      address: actor.address,
      sender: known ? way.sender : null,
      requests: known ? await ownRequests(deps, actor, input.document) : [],
    };
  }
  const { decision, licence, key } = opening;
  if (key !== null) deps.keyring.hold(licence.id, key);
  const [[grant], found, organisation] = await Promise.all([
    grantsByIds(deps.db.read, [licence.grantId]),
    findDocument(deps.db.read, input.document),
    findOrganisation(deps.db.read),
  ]);
  const sent = grant === undefined ? null : await findDispatch(deps.db.read, grant.dispatchId);
  if (sent === null || found === null) throw new ServiceError('document-gone');
  return {
    outcome: 'granted',
    licence: licence.id,
    title: found.document.title,
    reference: found.document.reference,
    pages: found.version.pages,
    file: { kind: found.version.mediaType, name: found.version.fileName },
    document: found.document.id,
    version: found.version.id,
    isLocal: found.version.isLocal,
    hasFile: carriesFile(sent.dispatch.form) && !found.version.isLocal,
    kept: actor.kept,
    openedAt: licence.openedAt,
    ...(await openState(
      deps,
      { ...actor, recipient: licence.recipientId },
      found.document,
      decision,
    )),
    sender: { name: sent.sentBy, email: sent.senderEmail, organisation: organisation?.name ?? '' },
    address: actor.address,
  };
}

import 'server-only';
import { newId, type DispatchId, type DocumentId, type LicenceId } from '@/core/base/ids';
import { DAY, HOUR } from '@/core/base/time';
import { decide, type Decision, type RefusalReason } from '@/core/policy/decide';
import { watermarkUnder } from '@/core/policy/defaults';
import { RIGHTS } from '@/core/policy/rights';
import { fillTokens } from '@/core/watermark/tokens';
import type { OpenResult, SharedDocument, SharedWith } from '@/contracts/reader';
import { findDocument } from '@/server/repositories/document-repository';
import { findOrganisation } from '@/server/repositories/organisation-repository';
import { documentsFor, endDevice, findLink, findRecipientByAddress, insertLicence } from '@/server/repositories/reader-repository';
import type { Deps, ReaderActor } from '@/server/services/deps';
import { askerOf, circumstancesOf, policyFor } from '@/server/services/document-policy';
import { ServiceError } from '@/server/services/errors';
import { defaultsFinder } from '@/server/services/manage-defaults';
import { ownRequests } from '@/server/services/ask-for-more';
import { actorOf, record, recordAlone, whereabouts } from '@/server/services/record';
import { ownGrant } from '@/server/services/wider-access';
import { joinByLink } from '@/server/services/visit-link';
import { ownPassedOn } from '@/server/services/own-passed-on';
import { payloadKeyOf } from '@/server/services/sealed-source';

/** How long one open can go on: turning pages inside it is not another open. */
const OPEN_LASTS = 12 * HOUR;

/** Decides for a proven person and a document, from the tables as they are now. `during`: an open that goes on. */
export async function decideFor(deps: Deps, actor: ReaderActor, documentId: DocumentId, during: LicenceId | null = null): Promise<Decision> {
  const [found, recipient] = await Promise.all([findDocument(deps.db.read, documentId), findRecipientByAddress(deps.db.read, actor.address)]);
  if (found === null) return { outcome: 'refused', reason: 'not-addressed', source: null };
  const [policy, at] = await Promise.all([policyFor(deps.db.read, found, { id: recipient?.id ?? null, address: actor.address }, during), circumstancesOf(deps, actor, recipient?.zone ?? null)]);
  return decide(policy, { identity: 'proven', recipient: askerOf(actor, recipient), at });
}

function stateOf(decision: Decision): SharedDocument['state'] {
  if (decision.outcome === 'refused') return { open: false, reason: decision.reason };
  return { open: true, until: decision.until, rights: RIGHTS.filter((right) => decision.rights[right].granted) };
}

/** What a link leads this person to. A stranger is told who they are here, and nothing else. */
export async function sharedWith(deps: Deps, actor: ReaderActor, input: { readonly token: string }): Promise<SharedWith> {
  const link = await findLink(deps.db.read, input.token);
  if (link === null) throw new ServiceError('NOT_FOUND', 'This link leads nowhere. Open it again from the message, whole.');
  let rows = await documentsFor(deps.db.read, link.dispatch.id, actor.address);
  if (rows.length === 0 && link.kind === 'link') {
    await joinByLink(deps, actor, link.dispatch.id);
    rows = await documentsFor(deps.db.read, link.dispatch.id, actor.address);
  }
  if (rows.length === 0) {
    await refuse(deps, actor, 'not-addressed', null, link.dispatch.id);
    return { address: actor.address, sender: null, note: '', documents: [] };
  }
  const [organisation, recipient] = await Promise.all([findOrganisation(deps.db.read), findRecipientByAddress(deps.db.read, actor.address)]);
  const documents = await Promise.all(rows.map(async ({ document, version }): Promise<SharedDocument> => {
    const state = stateOf(await decideFor(deps, { ...actor, recipient: recipient?.id ?? null }, document.id));
    return { id: document.id, title: document.title, reference: document.reference, pages: version.pages, state };
  }));
  return { address: actor.address, sender: { name: link.senderName, email: link.senderEmail, organisation: organisation?.name ?? '' }, note: link.dispatch.note, documents };
}

/** Records a refused open. */
async function refuse(deps: Deps, actor: ReaderActor, reason: RefusalReason, document: DocumentId | null, dispatch: DispatchId, rule?: string): Promise<void> {
  const recipient = await findRecipientByAddress(deps.db.read, actor.address);
  await recordAlone(deps, {
    action: 'document.opened', outcome: 'refused', reason, actor: actorOf({ ...actor, recipient: recipient?.id ?? null }), occurredAt: deps.clock.now(), dispatch, device: actor.device,
    ...(rule === undefined ? {} : { rule }), ...(document === null ? {} : { document }), ...(recipient === null ? {} : { recipient: recipient.id }),
    personal: { address: actor.address, ...whereabouts(deps, actor.from) },
  });
}

function network(text: string): string {
  return text.startsWith('::ffff:') ? text.slice(7) : text;
}

/**
 * One open: decides, and where the answer is yes, issues a licence and takes the key from the vault.
 * A refusal is an answer, recorded with its reason; to someone never addressed it names nobody.
 */
export async function openDocument(deps: Deps, actor: ReaderActor, input: { readonly token: string; readonly document: DocumentId }): Promise<OpenResult> {
  const link = await findLink(deps.db.read, input.token);
  if (link === null) throw new ServiceError('NOT_FOUND', 'This link leads nowhere. Open it again from the message, whole.');
  const decision = await decideFor(deps, actor, input.document);
  if (decision.outcome === 'refused') {
    const known = decision.reason !== 'not-addressed';
    await refuse(deps, actor, decision.reason, known ? input.document : null, link.dispatch.id, decision.source?.grant ?? decision.source?.level);
    return { outcome: 'refused', reason: decision.reason, address: actor.address, sender: known ? { name: link.senderName, email: link.senderEmail } : null, requests: known ? await ownRequests(deps, actor, input.document) : [] };
  }

  // Somebody who comes in along with others is a person with a grant of their own from here on.
  const charged = await ownGrant(deps, actor, decision.charged);
  const [found, recipient, organisation] = await Promise.all([findDocument(deps.db.read, input.document), findRecipientByAddress(deps.db.read, actor.address), findOrganisation(deps.db.read)]);
  if (found?.version.wrappedKey == null || recipient === null) throw new ServiceError('NOT_FOUND', 'This document is no longer here.');
  const { document, version } = found;
  const now = deps.clock.now();
  const zone = organisation?.zone ?? 'UTC';
  const around = (await defaultsFinder(deps.db.read))({ document: document.id, marking: document.markingId, folder: document.folderId });
  const watermark = fillTokens(watermarkUnder(link.dispatch.watermark, around), {
    name: recipient.name === '' ? actor.address : recipient.name, address: actor.address, organisation: recipient.organisation, reference: document.reference, network: network(actor.from.network),
    date: new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: zone }).format(now),
    time: new Intl.DateTimeFormat('en-GB', { hour: '2-digit', minute: '2-digit', timeZone: zone, timeZoneName: 'short' }).format(now),
  });
  const id = newId('licence', deps.random);
  const rights = RIGHTS.filter((right) => decision.rights[right].granted);
  const expiresAt = Math.min(now + OPEN_LASTS, decision.until ?? now + DAY);
  const statement = await deps.signLicence({ id, grant: charged, document: document.id, version: version.id, recipient: recipient.id, device: actor.device, rights, watermark, issuedAt: now, expiresAt });
  const fileKey = deps.vault.unwrap({ wrapped: found.version.wrappedKey, generation: version.keyGeneration }, version.id);
  deps.keyring.hold(id, payloadKeyOf(deps, { blobKey: version.blobKey, headerBytes: version.headerBytes, plainBytes: version.bytes }, fileKey));

  await deps.db.write(async (tx) => {
    await insertLicence(tx, { id, grantId: charged, documentId: document.id, versionId: version.id, recipientId: recipient.id, deviceId: actor.device, watermark, statement, openedAt: now, expiresAt });
    const about = { actor: { kind: 'recipient' as const, id: recipient.id }, occurredAt: now, document: document.id, version: version.id, recipient: recipient.id, grant: charged, dispatch: link.dispatch.id, device: actor.device, licence: id };
    await record(
      deps, tx,
      { action: 'document.opened', outcome: 'granted', rule: charged, ...about, details: { rights }, personal: { address: actor.address, ...whereabouts(deps, actor.from) } },
      { action: 'key.unwrapped', outcome: 'done', ...about, details: { for: 'open' } },
    );
  });
  return {
    outcome: 'granted', licence: id, title: document.title, reference: document.reference, pages: version.pages, openedAt: now, until: decision.until, rights: decision.rights, captureDeterrent: decision.obligations.captureDeterrent, passOn: decision.rights['pass-on'].granted ? decision.obligations.passOn : null, passedOn: await ownPassedOn(deps, actor, document.id),
    sender: { name: link.senderName, email: link.senderEmail, organisation: organisation?.name ?? '' }, address: actor.address, requests: await ownRequests(deps, { ...actor, recipient: recipient.id }, document.id),
  };
}

/** Ends this device: its cookie and key open nothing any more. */
export async function leaveDevice(deps: Deps, actor: ReaderActor): Promise<Record<string, never>> {
  await deps.db.write((tx) => endDevice(tx, actor.device, deps.clock.now()));
  return {};
}

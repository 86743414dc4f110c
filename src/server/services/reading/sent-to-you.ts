import 'server-only';
import type { SentDocument, SentToYou } from '@/contracts/sent';
import type { OwnRequest } from '@/contracts/requests';
import type { DocumentId } from '@/core/base/ids';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { requestsBy, sentTo } from '@/server/repositories/reading/sent-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { decideFor } from '@/server/services/policy/decide-access';
import { asOwnRequest } from '@/server/services/requests/ask-for-more';
import { ownDevices } from '@/server/services/reading/own-devices';
import { listPasskeys } from '@/server/repositories/reading/passkey-repository';
import { stateOf } from '@/server/services/reading/shared-with';

/** Grants that the list is made of; beyond it, the oldest are reached by their links. */
const MOST_GRANTS = 2_000;

/** What this person asked, by document. */
async function askedBy(
  deps: Pick<Deps, 'db'>,
  actor: ReaderActor,
): Promise<Map<DocumentId, OwnRequest[]>> {
  const asked = new Map<DocumentId, OwnRequest[]>();
  const rows = actor.recipient === null ? [] : await requestsBy(deps.db.read, actor.recipient);
  for (const { request, document } of rows) {
    const known = asked.get(document);
    if (known === undefined) asked.set(document, [asOwnRequest(request)]);
    else known.push(asOwnRequest(request));
  }
  return asked;
}

/**
 * Everything that was sent to the address this browser has proven, each document once, by the newest
 * dispatch that carries it. Looking at it opens nothing, and is not recorded as trying to.
 */
export async function sentToYou(deps: Deps, actor: ReaderActor): Promise<SentToYou> {
  const [rows, asked, organisation, devices, passkeys] = await Promise.all([
    sentTo(deps.db.read, actor.address, MOST_GRANTS),
    askedBy(deps, actor),
    findOrganisation(deps.db.read),
    ownDevices(deps, actor),
    listPasskeys(deps.db.read, actor.address),
  ]);
  // What was withdrawn from several dispatches is still one document.
  const newest = new Map(rows.toReversed().map((row) => [row.document, row]));
  const documents: SentDocument[] = [];
  for (const [id, row] of newest) {
    const decision = await decideFor(deps, deps.db.read, actor, id);
    documents.push({
      id,
      title: row.title,
      reference: row.reference,
      pages: row.pages,
      version: row.version,
      state: stateOf(decision),
      sender: row.sender,
      sentAt: row.sentAt,
      requests: asked.get(id) ?? [],
    });
  }
  return {
    address: actor.address,
    organisation: organisation?.name ?? '',
    kept: actor.kept,
    documents: documents.sort((one, other) => other.sentAt - one.sentAt),
    devices,
    passkeys,
  };
}

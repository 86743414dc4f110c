import 'server-only';
import type { Decision } from '@/core/policy/decide';
import { RIGHTS } from '@/core/policy/rights';
import type { SharedDocument, SharedWith } from '@/contracts/reader';
import { findOrganisation } from '@/server/repositories/organisation-repository';
import { dispatchShownTo, documentsCarried, documentsFor, findLink } from '@/server/repositories/reader-repository';
import { decideFor } from '@/server/services/decide-access';
import type { Deps, ReaderActor } from '@/server/services/deps';
import { ServiceError } from '@/server/services/errors';
import { linkOfAnother, recordRefusal } from '@/server/services/open-document';
import { joinByLink } from '@/server/services/visit-link';

function stateOf(decision: Decision): SharedDocument['state'] {
  if (decision.outcome === 'refused') return { open: false, reason: decision.reason, at: decision.at };
  return { open: true, until: decision.until, rights: RIGHTS.filter((right) => decision.rights[right].granted) };
}

/**
 * What a link leads this person to. A stranger is told who they are here, and nothing else; somebody who has the documents by
 * another dispatch than the link's is told of that one.
 *
 * @throws ServiceError `NOT_FOUND`
 */
export async function sharedWith(deps: Deps, actor: ReaderActor, input: { readonly token: string }): Promise<SharedWith> {
  const link = await findLink(deps.db.read, input.token);
  if (link === null) throw new ServiceError('NOT_FOUND', 'This link leads nowhere. Open it again from the message, whole.');
  let rows = await documentsFor(deps.db.read, link.dispatch.id, actor.address);
  if (rows.length === 0 && link.kind === 'link') {
    await joinByLink(deps, actor, link.dispatch.id);
    rows = await documentsFor(deps.db.read, link.dispatch.id, actor.address);
  }
  const shown = rows.length === 0 ? null : await dispatchShownTo(deps.db.read, link.dispatch.id, actor.address);
  if (shown === null) {
    for (const document of await documentsCarried(deps.db.read, link.dispatch.id)) {
      await recordRefusal(deps, deps.db.write, actor, { reason: 'not-addressed', document, dispatch: link.dispatch.id, via: null, linkOf: linkOfAnother(link, actor) });
    }
    return { address: actor.address, sender: null, note: '', documents: [] };
  }
  const organisation = await findOrganisation(deps.db.read);
  const documents = await Promise.all(rows.map(async ({ document, version }): Promise<SharedDocument> => {
    const decision = await decideFor(deps, deps.db.read, actor, document.id);
    const state = stateOf(decision);
    // One document alone is opened at once, and refused there.
    if (decision.outcome === 'refused' && rows.length > 1) {
      await recordRefusal(deps, deps.db.write, actor, { reason: decision.reason, document: document.id, dispatch: link.dispatch.id, via: null, linkOf: linkOfAnother(link, actor), rule: decision.source?.grant ?? decision.source?.level });
    }
    return { id: document.id, title: document.title, reference: document.reference, pages: version.pages, state };
  }));
  return { address: actor.address, sender: { name: shown.senderName, email: shown.senderEmail, organisation: organisation?.name ?? '' }, note: shown.note, documents };
}

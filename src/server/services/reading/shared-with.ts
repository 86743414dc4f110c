import 'server-only';
import { fillFields, hasFields } from '@/core/message/fields';
import { languageOf } from '@/core/base/languages';
import { endsWords } from '@/server/mail/dispatch-mail';
import type { Decision } from '@/core/policy/decide';
import { RIGHTS } from '@/core/policy/rights';
import type { SharedDocument, SharedWith } from '@/contracts/reader';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import {
  dispatchShownTo,
  documentsCarried,
  documentsFor,
  findLink,
  findRecipientByAddress,
} from '@/server/repositories/reading/reader-repository';
import { decideFor } from '@/server/services/policy/decide-access';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { recordRefusal } from '@/server/services/reading/open-document';
import { byLink } from '@/server/services/reading/way-here';
import { joinByLink } from '@/server/services/reading/visit-link';

type Link = NonNullable<Awaited<ReturnType<typeof findLink>>>;

export function stateOf(decision: Decision): SharedDocument['state'] {
  if (decision.outcome === 'refused')
    return { open: false, reason: decision.reason, at: decision.at };
  return {
    open: true,
    until: decision.until,
    opensLeft: decision.opensLeft,
    printsLeft: decision.rights.print.granted ? decision.rights.print.printsLeft : null,
    rights: RIGHTS.filter((right) => decision.rights[right].granted),
  };
}

/**
 * Writes down what was refused, all of it together. It counts as trying to open, so that nobody
 * fills the ledger by asking. @throws ServiceError `TOO_MANY`
 */
async function recordAll(
  deps: Deps,
  actor: ReaderActor,
  link: Link,
  refused: readonly Parameters<typeof recordRefusal>[4][],
): Promise<void> {
  if (refused.length === 0) return;
  const wait = await deps.limits.opens(actor.address);
  if (wait > 0) throw tooMany(wait);
  await deps.db.write(async (tx) => {
    for (const each of refused) await recordRefusal(deps, tx, actor, byLink(link, actor), each);
  });
}

/**
 * What a link leads this person to. A stranger is told who they are here, and nothing else;
 * somebody who has the documents by another dispatch than the link's is told of that one.
 *
 * @throws ServiceError `NOT_FOUND`, `TOO_MANY`
 */
export async function sharedWith(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly token: string },
): Promise<SharedWith> {
  const link = await findLink(deps.db.read, input.token);
  if (link === null) throw new ServiceError('link-unknown');
  let rows = await documentsFor(deps.db.read, link.dispatch.id, actor.address);
  if (rows.length === 0 && link.kind === 'link') {
    await joinByLink(deps, actor, link.dispatch.id);
    rows = await documentsFor(deps.db.read, link.dispatch.id, actor.address);
  }
  const shown =
    rows.length === 0 ? null : await dispatchShownTo(deps.db.read, link.dispatch.id, actor.address);
  if (shown === null) {
    const carried = await documentsCarried(deps.db.read, link.dispatch.id);
    await recordAll(
      deps,
      actor,
      link,
      carried.map((document) => ({ reason: 'not-addressed', document })),
    );
    return { address: actor.address, sender: null, note: '', documents: [] };
  }
  const organisation = await findOrganisation(deps.db.read);
  const decided = await Promise.all(
    rows.map(async (row) => ({
      ...row,
      decision: await decideFor(deps, deps.db.read, actor, row.document.id),
    })),
  );
  // One document alone is opened at once, and refused there.
  if (rows.length > 1)
    await recordAll(
      deps,
      actor,
      link,
      decided.flatMap(({ document, decision }) =>
        decision.outcome === 'refused' ? [{ ...decision, document: document.id }] : [],
      ),
    );
  const documents = decided.map(({ document, version, decision }): SharedDocument => ({
    id: document.id,
    title: document.title,
    reference: document.reference,
    pages: version.pages,
    version: version.id,
    state: stateOf(decision),
  }));
  return {
    address: actor.address,
    sender: {
      name: shown.senderName,
      email: shown.senderEmail,
      organisation: organisation?.name ?? '',
    },
    note: await noteFor(deps, actor, shown, documents),
    documents,
  };
}

/** What the sender wrote, filled in for this person. */
async function noteFor(
  deps: Deps,
  actor: ReaderActor,
  { note, senderName }: { readonly note: string; readonly senderName: string },
  documents: readonly SharedDocument[],
): Promise<string> {
  if (!hasFields(note)) return note;
  const person = await findRecipientByAddress(deps.db.read, actor.address);
  const zone = person?.zone ?? (await findOrganisation(deps.db.read))?.zone ?? 'UTC';
  return fillFields(note, {
    recipient: person === null || person.name === '' ? actor.address : person.name,
    organisation: person?.organisation ?? '',
    documents: documents.map(({ title }) => title).join(', '),
    ends: endsWords(
      documents.flatMap(({ state }) => (state.open ? [state.until] : [])),
      zone,
      languageOf(person?.language ?? null),
    ),
    sender: senderName,
  });
}

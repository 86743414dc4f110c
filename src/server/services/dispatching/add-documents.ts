import 'server-only';
import { groupBy } from '@/core/base/group';
import type { RecipientId } from '@/core/base/ids';
import { windowState } from '@/core/policy/decide';
import type { AddresseeKind } from '@/core/policy/addressee';
import { isInTheClear } from '@/core/policy/delivery';
import { MOST_DOCUMENTS } from '@/core/compose/limits';
import type { AddDocumentsInput } from '@/contracts/dispatch';
import type { Transaction } from '@/server/db/database';
import { grantsOf, termsOf, toFacts } from '@/server/repositories/access/grant-reader';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { addGrants } from '@/server/services/access/give-grants';
import { ServiceError } from '@/server/services/base/errors';
import { needAllowed } from '@/server/services/policy/within-rules';
import { record } from '@/server/services/base/record';
import {
  checkDocuments,
  checkLocal,
  checkSize,
  needDispatch,
} from '@/server/services/dispatching/check-dispatch';
import { linksToMail } from '@/server/services/dispatching/change-link';
import { mailLinks } from '@/server/services/dispatching/mail-links';
import type { Settled } from '@/server/services/dispatching/settle-recipients';

type Standing = Settled & { readonly kind: AddresseeKind };

/**
 * Everybody whom a dispatch addresses and who has something of it now, each on the terms they have
 * there: of several, those that end last.
 */
async function standingPeople(
  tx: Transaction,
  input: AddDocumentsInput,
  now: number,
): Promise<Standing[]> {
  const rows = await grantsOf(tx, { dispatch: input.id });
  const recipientOf = new Map(rows.map(({ grant }) => [grant.id, grant.recipientId]));
  const kindOf = new Map(rows.map(({ recipient }) => [recipient.id, recipient.kind]));
  const throughOf = (parent: (typeof rows)[number]['grant']['parentId']): RecipientId | null =>
    parent === null ? null : (recipientOf.get(parent) ?? null);
  const live = rows.filter(({ grant, recipient }) => {
    const state = windowState(toFacts(grant), now);
    const through = throughOf(grant.parentId);
    // Who came in along with a domain or an open link comes in again, and nobody passes on for others.
    const isAddressed = through === null || kindOf.get(through) === 'group';
    const isOver = state === 'revoked' || state === 'expired' || recipient.blocked;
    return isAddressed && grant.passedOnBy === null && !isOver;
  });
  return [...groupBy(live, ({ recipient }) => recipient.id).values()].flatMap((own) => {
    const end = ({ grant }: (typeof own)[number]) => grant.untilAt ?? Number.MAX_SAFE_INTEGER;
    const [longest] = own.toSorted((a, b) => end(b) - end(a));
    if (longest === undefined) return [];
    const { grant, recipient } = longest;
    const through = throughOf(grant.parentId);
    return [
      {
        id: recipient.id,
        address: recipient.address,
        name: recipient.name,
        organisation: recipient.organisation,
        zone: recipient.zone,
        language: recipient.language,
        terms: termsOf(grant),
        kept: grant.termsId,
        kind: recipient.kind,
        ...(through === null ? {} : { through }),
      },
    ];
  });
}

/** Those who are wanted; with a group, everybody in it. @throws ServiceError `CONFLICT`, `INVALID` */
function wantedOf(all: readonly Standing[], wanted: AddDocumentsInput['recipients']): Standing[] {
  if (wanted === null) return [...all];
  const ids = new Set(wanted);
  const found = all.filter(
    ({ id, through }) => ids.has(id) || (through !== undefined && ids.has(through)),
  );
  if (wanted.some((id) => !found.some((each) => each.id === id)))
    throw new ServiceError('given-to-nobody-here');
  const isThere = new Set(found.map(({ id }) => id));
  // Somebody of a group who is named without it is given it by themselves.
  return found.map(({ through, ...each }) =>
    through !== undefined && isThere.has(through) ? { ...each, through } : each,
  );
}

/**
 * Adds documents to a dispatch that was sent: its people, or some of them, are given each on the
 * terms they have there, and are mailed where the dispatch was. Who has nothing of it any more is
 * given nothing.
 *
 * @throws ServiceError `CONFLICT` where it carries one of them already or nobody is left; else as for
 * a new dispatch
 */
export async function addDocuments(
  deps: Deps,
  actor: StaffActor,
  input: AddDocumentsInput,
): Promise<{ readonly given: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const dispatch = await needDispatch(tx, actor, input.id);
    if (isInTheClear(dispatch.form)) throw new ServiceError('unprotected-adds-nobody');
    const documents = await checkDocuments(tx, actor, input.documents);
    const carried = new Set(
      (await grantsOf(tx, { dispatch: input.id })).map(({ document }) => document.id),
    );
    const twice = documents.find(({ id }) => carried.has(id));
    if (twice !== undefined) throw new ServiceError('carried-already', { title: twice.title });
    if (carried.size + documents.length > MOST_DOCUMENTS)
      throw new ServiceError('dispatch-full', { most: MOST_DOCUMENTS, carried: carried.size });
    if (dispatch.delivery === 'mail') await checkSize(tx, dispatch.form, documents);
    const people = wantedOf(await standingPeople(tx, input, now), input.recipients);
    if (people.length === 0) throw new ServiceError('given-to-nobody-here');
    const terms = people.map((each) => each.terms);
    await checkLocal(tx, dispatch.form, documents, terms);
    // By the rules of now: a way may have been forbidden since the dispatch was sent.
    await needAllowed(tx, {
      form: dispatch.form,
      domains: people.filter(({ kind }) => kind === 'domain'),
      openLink: people.find(({ kind }) => kind === 'link') ?? null,
    });
    const given = await addGrants(deps, tx, actor, dispatch, { documents, people, now });
    const mailed = people.filter(({ kind }) => kind === 'person');
    if (dispatch.delivery === 'mail') {
      const tokens = await linksToMail(deps, tx, actor, input.id, mailed);
      await mailLinks(
        deps,
        tx,
        actor,
        { id: input.id, tokens },
        mailed,
        { ...dispatch, documents },
        now,
      );
    }
    await record(deps, tx, ...given.events);
    return { given: people.length };
  });
}

import 'server-only';
import { newId, type DispatchId, type TermsId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { termsAt } from '@/core/policy/saved-terms';
import { termsText } from '@/core/policy/rights';
import { MOST_RECIPIENTS } from '@/contracts/dispatch';
import type { Transaction } from '@/server/db/database';
import {
  findRecipients,
  insertRecipients,
} from '@/server/repositories/people/recipient-repository';
import { listSavedTerms } from '@/server/repositories/documents/filing-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { settleWider } from '@/server/services/access/settle-wider';
import { type Addressee } from '@/server/services/access/give-grants';
import { ServiceError } from '@/server/services/base/errors';
import type { People } from '@/server/services/dispatching/check-dispatch';

/** `givenAt`: where it was before now. */
export type Settled = Addressee & { readonly zone: string | null; readonly givenAt?: number };

/** The saved terms that a dispatch says it uses, where its terms are those indeed. */
async function unchangedTerms(
  tx: Transaction,
  { kept: id, terms }: People,
  now: number,
): Promise<TermsId | null> {
  const kept = id == null ? undefined : (await listSavedTerms(tx)).find((each) => each.id === id);
  if (kept === undefined) return null;
  // Composing takes a while, and the days were counted when it began.
  const end = termsAt(kept, now).until;
  const sameEnd =
    end === null || terms.until === null ? end === terms.until : Math.abs(end - terms.until) <= DAY;
  return sameEnd &&
    terms.from === null &&
    termsText({ ...termsAt(kept, now), until: null }) === termsText({ ...terms, until: null })
    ? kept.id
    : null;
}

/**
 * The recipients as rows, known ones kept as they are: people, with those who are in the groups,
 * and what stands for many.
 */
export async function settleRecipients(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  dispatch: DispatchId,
  input: People,
  now: number,
): Promise<{ readonly people: Settled[]; readonly wider: Addressee[] }> {
  const kept = await unchangedTerms(tx, input, now);
  const wanted = new Map(input.recipients.map((each) => [each.address, each]));
  const known = await findRecipients(tx, [...wanted.keys()]);
  const isKnown = new Set(known.map((each) => each.address));
  const added = [...wanted.values()]
    .filter((each) => !isKnown.has(each.address))
    .map(({ address, name, organisation }) => ({
      id: newId('recipient', deps.random),
      address,
      name,
      organisation,
      zone: null,
      addedBy: actor.id,
      createdAt: now,
    }));
  await insertRecipients(tx, added);
  const people = [...known, ...added].map(({ id, address, zone }) => ({
    id,
    address,
    zone,
    terms: wanted.get(address)?.terms ?? input.terms,
    kept: wanted.get(address)?.terms == null ? kept : null,
  }));
  const { wider, members } = await settleWider(
    deps,
    tx,
    input,
    dispatch,
    new Set(people.map(({ id }) => id)),
    now,
  );
  if (people.length + members.length > MOST_RECIPIENTS)
    throw new ServiceError('too-many-recipients', {
      most: MOST_RECIPIENTS,
      found: people.length + members.length,
    });
  const given = { terms: input.terms, kept };
  return {
    people: [...people, ...members.map((member) => ({ ...member, ...given }))],
    wider: wider.map((each) => ({ ...each, ...given })),
  };
}

import 'server-only';
import { newId, type DispatchId, type TermsId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { termsAt } from '@/core/policy/saved-terms';
import { termsText } from '@/core/policy/rights';
import { MOST_RECIPIENTS } from '@/core/compose/limits';
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
export type Settled = Addressee & {
  readonly name: string;
  readonly organisation: string;
  readonly zone: string | null;
  /** The recipient's language (BCP 47), where it is known. */
  readonly language: string | null;
  readonly givenAt?: number;
};

type Own = Pick<People['recipients'][number], 'terms' | 'kept' | 'without'>;

/** Which saved terms are used unchanged, by what is said of them. */
async function unchangedTerms(
  tx: Transaction,
  now: number,
): Promise<(said: Pick<People, 'kept' | 'terms'>) => TermsId | null> {
  const saved = new Map((await listSavedTerms(tx)).map((each) => [each.id, each]));
  return ({ kept: id, terms }) => {
    const kept = id == null ? undefined : saved.get(id);
    if (kept === undefined || terms.from !== null) return null;
    // Composing takes a while, and the days were counted when it began.
    const asSaved = termsAt(kept, now);
    const sameEnd =
      asSaved.until === null || terms.until === null
        ? asSaved.until === terms.until
        : Math.abs(asSaved.until - terms.until) <= DAY;
    const isSame = termsText({ ...asSaved, until: null }) === termsText({ ...terms, until: null });
    return sameEnd && isSame ? kept.id : null;
  };
}

/**
 * The recipients as rows, known ones kept as they are: people, with those who are in the groups,
 * and what stands for many, each on terms of their own or on those in common.
 */
export async function settleRecipients(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  dispatch: DispatchId,
  input: People,
  now: number,
): Promise<{ readonly people: Settled[]; readonly wider: Addressee[] }> {
  const keptBy = await unchangedTerms(tx, now);
  const given = ({ terms, kept, without }: Own) => ({
    terms: terms ?? input.terms,
    kept: keptBy(terms == null ? input : { terms, kept }),
    without,
  });
  const wanted = new Map(input.recipients.map((each) => [each.address, each]));
  const listed = await settlePeople(deps, tx, actor, wanted, now);
  const { wider, members } = await settleWider(
    deps,
    tx,
    input,
    dispatch,
    new Set(listed.map(({ id }) => id)),
    now,
  );
  if (listed.length + members.length > MOST_RECIPIENTS)
    throw new ServiceError('too-many-recipients', {
      most: MOST_RECIPIENTS,
      found: listed.length + members.length,
    });
  return {
    people: [
      ...listed.map(({ id, address, name, organisation, zone, language }) => ({
        id,
        address,
        name,
        organisation,
        zone,
        language,
        ...given(wanted.get(address) ?? {}),
      })),
      ...members.map(({ own, ...member }) => ({ ...member, ...given(own) })),
    ],
    wider: wider.map(({ own, ...each }) => ({ ...each, ...given(own) })),
  };
}

type Wanted = ReadonlyMap<string, People['recipients'][number]>;

/** People by their addresses: known ones as they are, and new ones. */
async function settlePeople(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  wanted: Wanted,
  now: number,
) {
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
      language: null,
      addedBy: actor.id,
      createdAt: now,
    }));
  await insertRecipients(tx, added);
  return [...known, ...added];
}

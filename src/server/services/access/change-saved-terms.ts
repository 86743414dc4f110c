import 'server-only';
import { linesOf } from '@/core/watermark/layers';
import { groupBy } from '@/core/base/group';
import { newId, type TermsId } from '@/core/base/ids';
import { reaching, type Standing } from '@/core/policy/levels';
import { termsAt, type SavedTerms } from '@/core/policy/saved-terms';
import { termsText } from '@/core/policy/rights';
import type { ImpactFound } from '@/contracts/impact';
import type { PreviewTermsInput, PutTermsInput } from '@/contracts/saved-terms';
import type { Transaction } from '@/server/db/database';
import { folderParents, listCeilings } from '@/server/repositories/policy/ceiling-repository';
import { grantsByTerms, type GrantRecord } from '@/server/repositories/access/grant-reader';
import { setTermsOfGrants } from '@/server/repositories/access/grant-writer';
import { listSavedTerms, putTermsRow } from '@/server/repositories/documents/filing-repository';
import { aboutChange } from '@/server/services/access/change-grants';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { impactOf } from '@/server/services/policy/impact';
import { NO_REASON } from '@/server/services/base/reasons';
import { record } from '@/server/services/base/record';

type Changed = Pick<SavedTerms, 'rights' | 'days' | 'prints' | 'conditions'>;

/** What the changed terms come to for a grant that was given at `givenAt`: as though it had been sent with them. */
function asIfSentWith(
  { rights, days, prints, conditions }: Changed,
  grant: Pick<GrantRecord, 'fromAt' | 'givenAt'>,
) {
  return {
    ...termsAt(
      { rights, days, prints: rights.includes('print') ? prints : null, watermark: [], conditions },
      grant.givenAt,
    ),
    from: grant.fromAt,
  };
}

/** Saved terms as the ledger tells them. */
export function told({
  name,
  rights,
  days,
  prints,
  watermark,
  conditions,
}: SavedTerms & { readonly name: string }) {
  return {
    name,
    rights: [...rights],
    days,
    prints,
    watermark: linesOf(watermark),
    conditions:
      conditions === undefined
        ? ''
        : termsText({ rights: [], from: null, until: null, prints: null, conditions }),
  };
}

/**
 * Whom a change of saved terms would touch if it reached what was sent with them: grants that nobody
 * has changed or revoked since.
 */
export async function previewSavedTerms(
  deps: Deps,
  _actor: StaffActor,
  input: PreviewTermsInput,
): Promise<ImpactFound> {
  const now = deps.clock.now();
  const [ceilings, parents] = await Promise.all([
    listCeilings(deps.db.read),
    folderParents(deps.db.read),
  ]);
  const own = ceilings.filter(({ level }) => level === 'document').map(({ subject }) => subject);
  const over = (standing: Standing) => reaching(standing, ceilings, parents);
  const opens = ceilings.some(({ limits }) => limits.opens !== null);
  return impactOf(
    deps,
    now,
    { filing: ceilings.length > 0, own, terms: input.id, opens },
    {
      before: over,
      after: over,
      terms: (grant) => (grant.termsId === input.id ? asIfSentWith(input, grant) : null),
    },
  );
}

/**
 * Changes what was sent with saved terms, as though it had been sent with the changed ones: what had
 * ended may begin again. Revoked grants stay.
 */
async function reachBack(
  deps: Deps,
  tx: Transaction,
  actor: StaffActor,
  id: TermsId,
  changed: Changed,
  now: number,
): Promise<number> {
  const before = await grantsByTerms(tx, id);
  for (const alike of groupBy(
    before,
    ({ fromAt, givenAt }) => `${String(fromAt)} ${String(givenAt)}`,
  ).values()) {
    const [first] = alike;
    if (first !== undefined)
      await setTermsOfGrants(
        tx,
        alike.map((grant) => grant.id),
        asIfSentWith(changed, first),
      );
  }
  if (before.length > 0)
    await record(
      deps,
      tx,
      ...before.map((grant) =>
        aboutChange(actor, now, grant, asIfSentWith(changed, grant), NO_REASON, id),
      ),
    );
  return before.length;
}

/**
 * Keeps terms under a name. What was sent with them stays as it was sent, unless `reachBack` says that it follows.
 *
 * @returns the id, and how many grants followed
 * @throws ServiceError `CONFLICT` where the name is taken or somebody changed them since `seen`
 */
export async function putTerms(
  deps: Deps,
  actor: StaffActor,
  {
    id: known,
    name,
    rights,
    days,
    prints: asked,
    watermark,
    conditions,
    seen,
    reachBack: reaches,
  }: PutTermsInput,
): Promise<{ readonly id: TermsId; readonly changed: number }> {
  const id = known ?? newId('terms', deps.random);
  const prints = rights.includes('print') ? asked : null;
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const all = await listSavedTerms(tx);
    if (all.some((each) => each.id !== id && each.name.toLowerCase() === name.toLowerCase()))
      throw new ServiceError('terms-name-taken', { name });
    const before = all.find((each) => each.id === id);
    if (before !== undefined && seen !== undefined && before.version !== seen)
      throw new ServiceError('terms-changed', { by: before.changedBy });
    const version = (before?.version ?? 0) + 1;
    await putTermsRow(tx, {
      id,
      name,
      body: { rights, days, prints, watermark, conditions },
      changedBy: actor.id,
      changedAt: now,
    });
    const changed =
      reaches === true
        ? await reachBack(deps, tx, actor, id, { rights, days, prints, conditions }, now)
        : 0;
    await record(deps, tx, {
      action: 'settings.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: {
        terms: id,
        name,
        version,
        before: before === undefined ? null : told(before),
        after: told({ name, rights, days, prints, watermark, conditions }),
        changed,
      },
    });
    return { id, changed };
  });
}

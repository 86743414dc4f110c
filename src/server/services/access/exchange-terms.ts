import 'server-only';
import { isSameWatermark } from '@/core/watermark/layers';
import { stopped } from '@/core/odrl/stopped-words';
import { newId, type TermsId } from '@/core/base/ids';
import { termsFromOdrl, termsToOdrl, type NamedTerms } from '@/core/odrl/saved-terms';
import type { Unknown } from '@/core/odrl/report';
import { termsText } from '@/core/policy/rights';
import { putTermsInput, type SavedTermsRow } from '@/contracts/saved-terms';
import type { Brought, OdrlDocument, StatedTerms } from '@/contracts/odrl';
import type { Reading, Transaction } from '@/server/db/database';
import { listSavedTerms, putTermsRow } from '@/server/repositories/documents/filing-repository';
import { told } from '@/server/services/access/change-saved-terms';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { policiesOf } from '@/server/services/policy/odrl-file';
import { record } from '@/server/services/base/record';

/** Saved terms as a document that other programs read. */
export async function takeTermsOut({ db }: Deps): Promise<OdrlDocument> {
  const kept = await listSavedTerms(db.read);
  return {
    name: 'terms.jsonld',
    document: termsToOdrl(
      kept.map(({ name, rights, days, prints, watermark, conditions }) => ({
        name,
        rights,
        days,
        prints,
        watermark,
        conditions,
      })),
    ),
  };
}

type Plan = Brought & { readonly kept: NamedTerms | null; readonly replaces: TermsId | null };

function statedTerms({
  rights,
  prints,
  conditions,
  days,
}: Pick<NamedTerms, 'rights' | 'prints' | 'conditions' | 'days'>): StatedTerms {
  return { rights, prints, conditions, end: { days } };
}

function sameTerms(a: NamedTerms, b: NamedTerms): boolean {
  return (
    a.name === b.name &&
    a.days === b.days &&
    isSameWatermark(a.watermark, b.watermark) &&
    termsText({ ...a, from: null, until: null }) === termsText({ ...b, from: null, until: null })
  );
}

/** What of terms that were understood is not possible here. */
function impossibleIn(terms: NamedTerms): readonly Unknown[] {
  const { error } = putTermsInput.safeParse({ id: null, from: null, until: null, ...terms });
  return (error?.issues ?? []).map(({ path, message }) => ({
    path: path.join('/'),
    what: message,
  }));
}

/** What each policy comes to beside the terms there are; a name that stands twice is stopped the second time. */
async function planOf(db: Reading | Transaction, text: string): Promise<Plan[]> {
  const read = policiesOf(text, termsFromOdrl);
  const kept = new Map<string, SavedTermsRow>(
    (await listSavedTerms(db)).map((row) => [row.name.toLowerCase(), row]),
  );
  const seen = new Set<string>();
  return read.map(({ name, terms, unknown }): Plan => {
    const known = kept.get(name.toLowerCase());
    const problems: Unknown[] = [...unknown];
    if (seen.has(name.toLowerCase())) problems.push(stopped.policyTwice('embargo:name'));
    seen.add(name.toLowerCase());
    if (terms !== null && problems.length === 0) problems.push(...impossibleIn(terms));
    const stated = terms === null ? null : statedTerms(terms);
    if (terms === null || problems.length > 0)
      return {
        name,
        state: 'stopped',
        terms: stated,
        before: null,
        unknown: problems,
        kept: null,
        replaces: null,
      };
    return {
      name,
      ...besides(terms, known),
      terms: stated,
      unknown: [],
      kept: terms,
      replaces: known?.id ?? null,
    };
  });
}

/** What terms come to beside those of their name, where there are any. */
function besides(
  terms: NamedTerms,
  known: SavedTermsRow | undefined,
): Pick<Plan, 'state' | 'before'> {
  if (known === undefined) return { state: 'new', before: null };
  if (sameTerms(terms, known)) return { state: 'same', before: null };
  return { state: 'changed', before: statedTerms(known) };
}

/** What a document would change, before anything is. @throws ServiceError `INVALID` where it is no such document */
export async function previewTerms(
  { db }: Deps,
  _actor: StaffActor,
  { text }: { readonly text: string },
): Promise<{ readonly brought: readonly Brought[] }> {
  return {
    brought: (await planOf(db.read, text)).map(
      ({ kept: _kept, replaces: _replaces, ...row }) => row,
    ),
  };
}

/**
 * Keeps the terms of a document that are understood whole, all at once; the others stay out.
 * @throws ServiceError `INVALID`
 */
export async function importTerms(
  deps: Deps,
  actor: StaffActor,
  { text }: { readonly text: string },
): Promise<{ readonly taken: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const all = await listSavedTerms(tx);
    const changes = (await planOf(tx, text)).filter(
      ({ state }) => state === 'new' || state === 'changed',
    );
    for (const { kept, replaces } of changes) {
      if (kept === null) continue;
      const { name, rights, days, prints, watermark, conditions } = kept;
      const before = all.find((each) => each.id === replaces);
      const id = replaces ?? newId('terms', deps.random);
      await putTermsRow(tx, {
        id,
        name,
        body: { rights, days, prints, watermark, conditions },
        changedBy: actor.id,
        changedAt: now,
      });
      await record(deps, tx, {
        action: 'settings.changed',
        outcome: 'done',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: now,
        details: {
          terms: id,
          name,
          version: (before?.version ?? 0) + 1,
          before: before === undefined ? null : told(before),
          after: told(kept),
          changed: 0,
          imported: true,
        },
      });
    }
    return { taken: changes.length };
  });
}

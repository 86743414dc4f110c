import 'server-only';
import { newId, type DispatchId, type TermsId } from '@/core/base/ids';
import { grantsToOdrl } from '@/core/odrl/grants';
import { termsFromOdrl, termsToOdrl, type NamedTerms } from '@/core/odrl/kept-terms';
import type { Json, Unknown } from '@/core/odrl/report';
import { termsText } from '@/core/policy/rights';
import { putTermsInput, type KeptTermsRow } from '@/contracts/kept-terms';
import type { BroughtTerms, OdrlDocument } from '@/contracts/odrl';
import type { Reading, Transaction } from '@/server/db/database';
import { findDispatch, grantsOf, toFacts } from '@/server/repositories/dispatch-repository';
import { listKeptTerms, putTermsRow } from '@/server/repositories/filing-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { ServiceError } from '@/server/services/errors';
import { conditionLines } from '@/core/policy/condition-lines';
import { record } from '@/server/services/record';

/** Kept terms as a document that other programs read. */
export async function takeTermsOut({ db }: Deps): Promise<OdrlDocument> {
  const kept = await listKeptTerms(db.read);
  return { name: 'terms.jsonld', document: termsToOdrl(kept.map(({ name, rights, days, prints, watermark, conditions }) => ({ name, rights, days, prints, watermark, conditions }))) };
}

/** The grants of a sending as such a document. @throws ServiceError `NOT_FOUND` */
export async function takeGrantsOut({ db }: Deps, _actor: StaffActor, { id }: { readonly id: DispatchId }): Promise<OdrlDocument> {
  const found = await findDispatch(db.read, id);
  if (found === null) throw new ServiceError('NOT_FOUND', 'There is no such dispatch.');
  const rows = await grantsOf(db.read, { dispatch: id });
  return {
    name: `${found.dispatch.reference}.jsonld`,
    document: grantsToOdrl(rows.map(({ grant, recipient, document }) => ({ id: grant.id, reference: document.reference, giver: found.senderEmail, address: recipient.address, terms: toFacts(grant).terms, revoked: grant.revokedAt !== null }))),
  };
}

function parse(text: string): Json {
  try {
    return JSON.parse(text) as Json;
  } catch {
    throw new ServiceError('INVALID', 'This file is no JSON.');
  }
}

type Plan = BroughtTerms & { readonly terms: NamedTerms | null; readonly replaces: TermsId | null };

function sameTerms(a: NamedTerms, b: NamedTerms): boolean {
  return a.name === b.name && a.days === b.days && a.watermark === b.watermark && termsText({ ...a, from: null, until: null }) === termsText({ ...b, from: null, until: null });
}

/** What each policy comes to beside the terms there are; a name that stands twice is stopped the second time. */
async function planOf(db: Reading | Transaction, text: string): Promise<Plan[]> {
  const read = termsFromOdrl(parse(text));
  if (read.length === 0) throw new ServiceError('INVALID', 'This file holds no ODRL policy.');
  const kept = new Map<string, KeptTermsRow>((await listKeptTerms(db)).map((row) => [row.name.toLowerCase(), row]));
  const seen = new Set<string>();
  return read.map(({ name, terms, unknown }): Plan => {
    const known = kept.get(name.toLowerCase());
    const problems: Unknown[] = [...unknown];
    if (seen.has(name.toLowerCase())) problems.push({ path: 'embargo:name', what: 'another policy in this file has this name' });
    seen.add(name.toLowerCase());
    const checked = terms === null || problems.length > 0 ? null : putTermsInput.safeParse({ id: null, from: null, until: null, ...terms });
    if (checked?.success === false) problems.push(...checked.error.issues.map((issue) => ({ path: issue.path.join('/'), what: issue.message })));
    const words = terms === null ? '' : `${terms.rights.join(', ')}${terms.prints === null ? '' : ` (${String(terms.prints)} prints)`}, ${terms.days === null ? 'no end' : `${String(terms.days)} days`}${conditionLines(terms.conditions, 'their zone').map((line) => `, ${line}`).join('')}`;
    if (terms === null || problems.length > 0) return { name, state: 'stopped', words, unknown: problems, terms: null, replaces: null };
    return { name, state: known === undefined ? 'new' : sameTerms(terms, known) ? 'same' : 'changed', words, unknown: [], terms, replaces: known?.id ?? null };
  });
}

/** What a document would change, before anything is. @throws ServiceError `INVALID` where it is no such document */
export async function previewTerms({ db }: Deps, _actor: StaffActor, { text }: { readonly text: string }): Promise<{ readonly brought: readonly BroughtTerms[] }> {
  return { brought: (await planOf(db.read, text)).map(({ terms: _terms, replaces: _replaces, ...row }) => row) };
}

/** Keeps the terms of a document that are understood whole, all at once; the others stay out. @throws ServiceError `INVALID` */
export async function bringTermsIn(deps: Deps, actor: StaffActor, { text }: { readonly text: string }): Promise<{ readonly kept: number }> {
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    const changes = (await planOf(tx, text)).filter(({ state }) => state === 'new' || state === 'changed');
    for (const { terms, replaces } of changes) {
      if (terms === null) continue;
      const { name, rights, days, prints, watermark, conditions } = terms;
      const id = replaces ?? newId('terms', deps.random);
      await putTermsRow(tx, { id, name, body: { rights, days, prints, watermark, conditions }, changedBy: actor.id, changedAt: now });
      await record(deps, tx, { action: 'settings.changed', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: now, details: { terms: id, name, rights: [...rights], days, prints, broughtIn: true } });
    }
    return { kept: changes.length };
  });
}

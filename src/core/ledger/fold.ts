import type { DocumentId, GrantId } from '@/core/base/ids';
import type { Entry } from '@/core/ledger/entry';

/** A grant's terms as one line of text, so that two can be compared whole. */
type GrantState = { readonly terms: string; readonly revoked: boolean };

/** What the ledger says about access: every grant and every revoked document. */
export type AccessState = {
  readonly grants: Map<GrantId, GrantState>;
  readonly revokedDocuments: Set<DocumentId>;
};

export function emptyAccess(): AccessState {
  return { grants: new Map(), revokedDocuments: new Set() };
}

/** The terms as the entry spells them; an entry without any stands for none. */
function termsOf({ details }: Entry): string {
  const { terms } = details;
  return typeof terms === 'string' ? terms : '';
}

/**
 * Applies one entry to the state of access it left behind. What the tables say must be the same:
 * a grant slipped in, widened or revived without an entry then shows.
 */
export function applyEntry(state: AccessState, entry: Entry): void {
  const { grant, document } = entry;
  switch (entry.action) {
    case 'grant.given':
    case 'grant.changed':
      if (grant !== null)
        state.grants.set(grant, {
          terms: termsOf(entry),
          revoked: state.grants.get(grant)?.revoked ?? false,
        });
      return;
    case 'grant.revoked':
    case 'grant.reinstated':
      if (grant !== null)
        state.grants.set(grant, {
          terms: state.grants.get(grant)?.terms ?? '',
          revoked: entry.action === 'grant.revoked',
        });
      return;
    case 'document.revoked':
      if (document !== null) state.revokedDocuments.add(document);
      return;
    case 'document.reinstated':
      if (document !== null) state.revokedDocuments.delete(document);
      return;
    default:
    // Every other action leaves access as it was.
  }
}

/** Every difference between what the ledger says and what the tables say, in words. */
export function differences(ledger: AccessState, tables: AccessState): string[] {
  const found: string[] = [];
  for (const [id, now] of tables.grants) {
    const recorded = ledger.grants.get(id);
    if (recorded === undefined) found.push(`${id} stands in the database and was never recorded`);
    else if (recorded.terms !== now.terms) found.push(`${id} has terms that were never recorded`);
    else if (recorded.revoked !== now.revoked)
      found.push(
        `${id} is ${now.revoked ? 'revoked' : 'live'} in the database and ` +
          `${recorded.revoked ? 'revoked' : 'live'} on the ledger`,
      );
  }
  for (const id of ledger.grants.keys())
    if (!tables.grants.has(id)) found.push(`${id} was recorded and is gone from the database`);
  for (const id of tables.revokedDocuments)
    if (!ledger.revokedDocuments.has(id))
      found.push(`${id} is revoked in the database and not on the ledger`);
  for (const id of ledger.revokedDocuments)
    if (!tables.revokedDocuments.has(id))
      found.push(`${id} is revoked on the ledger and not in the database`);
  return found;
}

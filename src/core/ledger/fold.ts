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
  if (entry.grant !== null) applyToGrant(state, entry.grant, entry);
  if (entry.document !== null) applyToDocument(state, entry.document, entry);
}

function applyToGrant({ grants }: AccessState, id: GrantId, entry: Entry): void {
  const before = grants.get(id);
  switch (entry.action) {
    case 'grant.given':
    case 'grant.changed':
      grants.set(id, { terms: termsOf(entry), revoked: before?.revoked ?? false });
      return;
    case 'grant.revoked':
    case 'grant.reinstated':
      grants.set(id, { terms: before?.terms ?? '', revoked: entry.action === 'grant.revoked' });
      return;
    default:
    // Every other action leaves grants as they were.
  }
}

function applyToDocument({ revokedDocuments }: AccessState, id: DocumentId, entry: Entry): void {
  if (entry.action === 'document.revoked') revokedDocuments.add(id);
  if (entry.action === 'document.reinstated') revokedDocuments.delete(id);
}

/** What is different about one grant; `null`: nothing. */
function difference(id: GrantId, recorded: GrantState | undefined, now: GrantState): string | null {
  const standing = ({ revoked }: GrantState) => (revoked ? 'revoked' : 'live');
  if (recorded === undefined) return `${id} stands in the database and was never recorded`;
  if (recorded.terms !== now.terms) return `${id} has terms that were never recorded`;
  if (recorded.revoked === now.revoked) return null;
  return `${id} is ${standing(now)} in the database and ${standing(recorded)} on the ledger`;
}

/** Every difference between what the ledger says and what the tables say, in words. */
export function differences(ledger: AccessState, tables: AccessState): string[] {
  const found: string[] = [];
  for (const [id, now] of tables.grants) {
    const what = difference(id, ledger.grants.get(id), now);
    if (what !== null) found.push(what);
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

import 'server-only';
import { counted } from '@/core/base/counted';
import type { LedgerRow } from '@/contracts/ledger';
import type { Entry } from '@/core/ledger/entry';
import type { Json } from '@/core/ledger/canonical';
import type { Reading } from '@/server/db/database';
import type { EntryRow } from '@/server/repositories/ledger-reader';
import { namesOf } from '@/server/repositories/organisation-repository';

function text(value: Json | undefined): string {
  return typeof value === 'string' || typeof value === 'number' ? String(value) : '';
}

/** What an entry says beyond who, what and when; one short line. */
function detailOf({ action, reason, details }: Entry): string {
  if (reason !== null) return reason.replaceAll('-', ' ').toLowerCase();
  switch (action) {
    case 'page.shown':
    case 'text.copied':
      return `page ${text(details['page'])}`;
    case 'document.printed':
      return `copy ${text(details['copy'])}, pages ${text(details['from'])}–${text(details['to'])}`;
    case 'document.kept':
      return details['marked'] === true ? 'watermarked' : 'not watermarked';
    case 'document.protected':
      return counted(Number(details['pages'] ?? 0), 'page');
    case 'key.unwrapped':
      return `for ${text(details['for'])}`;
    case 'dispatch.sent':
      return `${text(details['documents'])} × ${text(details['recipients'])}`;
    default:
      return '';
  }
}

function whoOf(entry: Entry, personal: EntryRow['personal'], names: ReadonlyMap<string, string>): string {
  const known = entry.actor.id === null ? undefined : names.get(entry.actor.id);
  if (known !== undefined) return known;
  if (entry.actor.kind === 'system') return 'Embargo';
  return personal['address'] ?? 'not known';
}

function whatOf({ document, dispatch, recipient, action }: Entry, names: ReadonlyMap<string, string>): string {
  const target = document ?? (action.startsWith('mail.') ? recipient : null) ?? dispatch ?? recipient;
  return target === null ? '' : (names.get(target) ?? '');
}

/** Whose link somebody else came by. */
function byLinkOf({ details }: Entry, names: ReadonlyMap<string, string>): string {
  const whose = text(details['linkOf']);
  return whose === '' ? '' : `by the link of ${names.get(whose) ?? whose}`;
}

/** What somebody wrote: the reason of an act, a request, an answer. */
function quoted(text: string | undefined): string {
  return text === undefined || text === '' ? '' : `“${text}”`;
}

/** The columns of an exported row. */
export const EXPORT_COLUMNS = ['sequence', 'occurredAt', 'receivedAt', 'who', 'action', 'outcome', 'reason', 'what', 'place', 'network', 'detail', 'document', 'recipient', 'dispatch', 'hash'] as const satisfies readonly (keyof LedgerRow)[];

/** One entry as a list shows it, with names for its ids. */
export function toLedgerRow({ entry, hash, personal }: EntryRow, names: ReadonlyMap<string, string>): LedgerRow {
  return {
    sequence: entry.sequence, occurredAt: entry.occurredAt, receivedAt: entry.receivedAt, action: entry.action, outcome: entry.outcome, reason: entry.reason, rule: entry.rule,
    who: whoOf(entry, personal, names), what: whatOf(entry, names), document: entry.document, recipient: entry.recipient, dispatch: entry.dispatch,
    place: personal['place'] ?? '', network: personal['network'] ?? '', detail: [detailOf(entry), byLinkOf(entry, names), quoted(personal['text'])].filter((part) => part !== '').join(', '), hash, previous: entry.previous,
  };
}

/** Entries as a list shows them, with names for their ids. */
export async function toLedgerRows(db: Reading, entries: readonly EntryRow[]): Promise<LedgerRow[]> {
  const ids = new Set(entries.flatMap(({ entry }) => [entry.actor.id, entry.document, entry.recipient, entry.dispatch, text(entry.details['linkOf'])]).filter((id) => id !== null));
  const names = await namesOf(db, [...ids].filter((id) => id !== ''));
  return entries.map((row) => toLedgerRow(row, names));
}

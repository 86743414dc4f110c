import 'server-only';
import { dayAfter, dayBegins } from '@/core/base/days';
import { toUtcText } from '@/core/base/time';
import type { LedgerInput, LedgerPage } from '@/contracts/ledger';
import { countByDay, countEntries, countFacets, recordedDays } from '@/server/repositories/ledger-counts';
import { ledgerState, listEntries, type EntryFilter, type Span } from '@/server/repositories/ledger-reader';
import { findOrganisation, namesOf } from '@/server/repositories/organisation-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { toLedgerRows } from '@/server/services/ledger-rows';
import { recordAlone } from '@/server/services/record';

const ROWS = 100;
const EXPORT_ROWS = 500;

/** When the first day begins and the last one ends, as entries spell moments. */
function spanOf({ from, to }: EntryFilter, zone: string): Span {
  return { begins: from === undefined ? undefined : toUtcText(dayBegins(from, zone)), ends: to === undefined ? undefined : toUtcText(dayBegins(dayAfter(to), zone)) };
}

/** A page of the ledger, the newest entries first. */
export async function listLedger(deps: Deps, input: LedgerInput): Promise<LedgerPage> {
  const { before, ...filter } = input;
  const db = deps.db.read;
  const zone = (await findOrganisation(db))?.zone ?? 'UTC';
  const [entries, total, recorded, days, facets, state, names] = await Promise.all([listEntries(db, filter, ROWS, before, spanOf(filter, zone)), countEntries(db, filter), recordedDays(db), countByDay(db, filter), countFacets(db, filter), ledgerState(db), namesOf(db, [filter.document, filter.recipient, filter.dispatch].filter((id) => id !== undefined))]);
  const nameOf = (id: string | undefined): string | null => (id === undefined ? null : (names.get(id) ?? id));
  return {
    rows: await toLedgerRows(db, entries), total, recorded, days, facets, zone, ...state,
    names: { document: nameOf(filter.document), recipient: nameOf(filter.recipient), dispatch: nameOf(filter.dispatch) },
    older: entries.length === ROWS ? (entries.at(-1)?.entry.sequence ?? null) : null,
  };
}

/** A field of a CSV file (RFC 4180); what a spreadsheet would take for a formula is disarmed. */
export function csvField(value: string): string {
  const safe = /^[=+\-@\t\r]/.test(value) ? `'${value}` : value;
  return /[",\r\n]/.test(safe) ? `"${safe.replaceAll('"', '""')}"` : safe;
}

const COLUMNS = ['sequence', 'occurredAt', 'receivedAt', 'who', 'action', 'outcome', 'reason', 'what', 'place', 'network', 'detail', 'document', 'recipient', 'dispatch', 'hash'] as const;

/**
 * The filtered ledger as CSV, oldest pages last, made as it is read. Lines at its head state filter,
 * zone and total; that it was exported is itself recorded.
 */
export async function* exportLedger(deps: Deps, actor: StaffActor, input: LedgerInput): AsyncGenerator<string, void> {
  const { before: _before, ...filter } = input;
  const total = await countEntries(deps.db.read, filter);
  const zone = (await findOrganisation(deps.db.read))?.zone ?? 'UTC';
  const span = spanOf(filter, zone);
  const stated = Object.entries(filter).map(([key, value]) => `${key}=${value}`).join('; ');
  await recordAlone(deps, { action: 'ledger.exported', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: deps.clock.now(), details: { rows: total, filter: stated } });
  yield `# Embargo ledger; exported ${new Date(deps.clock.now()).toISOString()}; times in UTC; days in ${zone}; filter: ${stated === '' ? 'none' : stated}; rows: ${String(total)}\r\n`;
  yield `${COLUMNS.join(',')}\r\n`;
  for (let cursor: number | undefined; ; ) {
    const entries = await listEntries(deps.db.read, filter, EXPORT_ROWS, cursor, span);
    if (entries.length === 0) return;
    const rows = await toLedgerRows(deps.db.read, entries);
    yield rows.map((row) => `${COLUMNS.map((column) => csvField(String(row[column] ?? ''))).join(',')}\r\n`).join('');
    cursor = entries.at(-1)?.entry.sequence;
  }
}

import 'server-only';
import type { EntryFilter, Span } from '@/core/insight/filter';
import { dayAfter, dayBegins } from '@/core/base/days';
import { toUtcText } from '@/core/base/time';
import type { LedgerInput, LedgerPage } from '@/contracts/ledger';
import { viewsOf } from '@/server/repositories/filing-repository';
import { lastSequence, ledgerState, listEntries } from '@/server/repositories/ledger-reader';
import { findOrganisation, namesOf } from '@/server/repositories/organisation-repository';
import type { Deps, StaffActor } from '@/server/services/deps';
import { ServiceError } from '@/server/services/errors';
import { EXPORT_COLUMNS, toLedgerRows } from '@/server/services/ledger-rows';
import { recordAlone } from '@/server/services/record';

const ROWS = 100;
/** Headings shown under each heap. */
const HEADINGS = 8;

/** When the first day begins and the last one ends, as entries spell moments. */
export function spanOf({ from, to }: Pick<EntryFilter, 'from' | 'to'>, zone: string): Span {
  return { begins: from === undefined ? undefined : toUtcText(dayBegins(from, zone)), ends: to === undefined ? undefined : toUtcText(dayBegins(dayAfter(to), zone)) };
}

/** Places a picture shows at most. */
const MOST_PLACES = 200;

/** A page of the ledger, the newest entries first. */
export async function listLedger(deps: Deps, actor: StaffActor, input: LedgerInput): Promise<LedgerPage> {
  const { before, ...filter } = input;
  const db = deps.db.read;
  const zone = (await findOrganisation(db))?.zone ?? 'UTC';
  const [entries, counts, state, names, views] = await Promise.all([
    listEntries(db, filter, ROWS, before, spanOf(filter, zone)), deps.counts.count(filter), ledgerState(db), namesOf(db, [filter.document, filter.recipient, filter.dispatch].filter((id) => id !== undefined)), viewsOf(db, actor.id),
  ]);
  const { total, recorded, days, kinds, reasons, places, organisations, unplaced } = counts;
  const nameOf = (id: string | undefined): string | null => (id === undefined ? null : (names.get(id) ?? id));
  return {
    rows: await toLedgerRows(db, entries), total, recorded, days, facets: { kinds, reasons: reasons.slice(0, HEADINGS), places: places.slice(0, HEADINGS), organisations: organisations.slice(0, HEADINGS) }, zone, ...state, views,
    // Those without a spot on the map are told by number too: nothing is left out silently.
    map: { spots: places.slice(0, MOST_PLACES).flatMap(({ value, entries: n }) => { const at = deps.places.locate(value); return at === null ? [] : [{ place: value, entries: n, at }]; }), unplaced },
    names: { document: nameOf(filter.document), recipient: nameOf(filter.recipient), dispatch: nameOf(filter.dispatch) },
    older: entries.length === ROWS ? (entries.at(-1)?.entry.sequence ?? null) : null,
  };
}

/** Exports that may run at once: each keeps a thread and a connection busy. */
const MOST_EXPORTS = 2;
let running = 0;

/**
 * The filtered ledger as CSV, the newest entries first, made as it is read, in a thread of its own.
 * Lines at its head state filter, zone and totals; that it was exported is itself recorded.
 *
 * @throws ServiceError `TOO_MANY` while others are being made
 */
export async function exportLedger(deps: Deps, actor: StaffActor, input: LedgerInput): Promise<AsyncGenerator<Uint8Array, void>> {
  const { before: _before, ...filter } = input;
  if (running >= MOST_EXPORTS) throw new ServiceError('TOO_MANY', 'Two exports are being made already. Wait until one is done.');
  const { total, kinds } = await deps.counts.count(filter);
  const zone = (await findOrganisation(deps.db.read))?.zone ?? 'UTC';
  const stated = Object.entries(filter).map(([key, value]) => `${key}=${value}`).join('; ');
  await recordAlone(deps, { action: 'ledger.exported', outcome: 'done', actor: { kind: 'staff', id: actor.id }, occurredAt: deps.clock.now(), details: { rows: total, filter: stated } });
  const counted = kinds.filter(({ value }) => filter.kind === undefined || filter.kind === value).map(({ value, entries }) => `${value} ${String(entries)}`).join(', ');
  const head = `# Embargo ledger; exported ${new Date(deps.clock.now()).toISOString()}; times in UTC; days in ${zone}; filter: ${stated === '' ? 'none' : stated}; rows: ${String(total)}; of these: ${counted === '' ? 'none' : counted}\r\n${EXPORT_COLUMNS.join(',')}\r\n`;
  return withHead(head, deps.exporter.csv(filter, spanOf(filter, zone), await lastSequence(deps.db.read)));
}

async function* withHead(head: string, rows: AsyncGenerator<Uint8Array, void>): AsyncGenerator<Uint8Array, void> {
  running++;
  try {
    yield new TextEncoder().encode(head);
    yield* rows;
  } finally {
    running--;
  }
}

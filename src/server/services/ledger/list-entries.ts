import 'server-only';
import { ledgerHeading } from '@/core/insight/export-words';
import { dayAfter, dayBegins, momentAt } from '@/core/base/days';
import type { LicenceId } from '@/core/base/ids';
import { MINUTE, toUtcText } from '@/core/base/time';
import { dayOfText, DIMENSIONS, type EntryFilter, type Span } from '@/core/insight/filter';
import { holds } from '@/core/policy/permissions';
import type {
  FacetCount,
  FacetInput,
  FilterInput,
  LedgerInput,
  LedgerPage,
} from '@/contracts/ledger';
import { viewsOf } from '@/server/repositories/staff/view-repository';
import type { Edge } from '@/server/repositories/ledger/ledger-counts';
import {
  entriesOfOpen,
  foldedInto,
  listEntries,
  type EntryRow,
} from '@/server/repositories/ledger/ledger-reader';
import { lastSequence } from '@/server/repositories/ledger/access-changes';
import { ledgerState } from '@/server/repositories/ledger/ledger-chain';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { EXPORT_COLUMNS, toLedgerRows } from '@/server/services/ledger/ledger-rows';
import { recordAlone } from '@/server/services/base/record';

const ROWS = 100;
/** Headings shown under each tally. */
const HEADINGS = 8;

/** When the first day or minute begins and the last one ends, as entries spell moments. */
export function spanOf({ from, to }: Pick<EntryFilter, 'from' | 'to'>, zone: string): Span {
  return {
    begins: from === undefined ? undefined : toUtcText(momentOf(from, zone)),
    ends:
      to === undefined
        ? undefined
        : toUtcText(isDay(to) ? dayBegins(dayAfter(to), zone) : momentOf(to, zone) + MINUTE),
  };
}

const isDay = (text: string): boolean => text.length === dayOfText(text).length;

/** When a day begins, or the moment that a clock in the zone shows. */
function momentOf(text: string, zone: string): number {
  return isDay(text) ? dayBegins(text, zone) : momentAt(text, zone);
}

/** The first and last days of a span that are only in part inside. */
function edgesOf({ from, to }: Pick<EntryFilter, 'from' | 'to'>, zone: string): Edge[] {
  const { begins, ends } = spanOf({ from, to }, zone);
  const [first, last] = [
    from === undefined || isDay(from) ? null : dayOfText(from),
    to === undefined || isDay(to) ? null : dayOfText(to),
  ];
  if (first !== null && first === last) return [{ day: first, begins, ends }];
  return [
    ...(first === null
      ? []
      : [{ day: first, begins, ends: toUtcText(dayBegins(dayAfter(first), zone)) }]),
    ...(last === null ? [] : [{ day: last, begins: toUtcText(dayBegins(last, zone)), ends }]),
  ];
}

/** What was asked for, kept to what the asker may read of. */
export function filterOf(
  actor: StaffActor,
  { without = [], from, to, own, ...wanted }: FilterInput,
): EntryFilter {
  const refused = Object.fromEntries(
    DIMENSIONS.map(
      (each) =>
        [
          each,
          without.filter(({ dimension }) => dimension === each).map(({ value }) => value),
        ] as const,
    ).filter(([, values]) => values.length > 0),
  );
  const chosen = Object.fromEntries(
    DIMENSIONS.map((each) => [each, wanted[each]] as const).filter(
      ([, values]) => values !== undefined && values.length > 0,
    ),
  );
  return {
    with: chosen,
    without: refused,
    from,
    to,
    own: own === 'yes' || !holds(actor.role, 'read-record') ? actor.id : undefined,
  };
}

/** What is told with an open is told so unless it is looked for by what it and the open differ in. */
function folds({ with: wanted = {}, without = {} }: EntryFilter): boolean {
  return [wanted, without].every(
    ({ kind, outcome, reason, place }) =>
      kind === undefined && outcome === undefined && reason === undefined && place === undefined,
  );
}

/** Places a picture shows at most. */
const MOST_PLACES = 200;

/** A page of the ledger, the newest entries first. */
export async function listLedger(
  deps: Deps,
  actor: StaffActor,
  { before, each, ...input }: LedgerInput,
): Promise<LedgerPage> {
  const filter = filterOf(actor, input);
  const db = deps.db.read;
  const zone = (await findOrganisation(db))?.zone ?? 'UTC';
  const folded = each === undefined && folds(filter);
  const [entries, counts, state, views] = await Promise.all([
    listEntries(db, filter, ROWS, before, spanOf(filter, zone), folded),
    deps.counts.count(filter, edgesOf(filter, zone)),
    ledgerState(db),
    viewsOf(db, actor.id, 'ledger'),
  ]);
  const { total, recorded, days, kinds, reasons, places, organisations, unplaced } = counts;
  const few = (all: typeof reasons) => ({ values: all.slice(0, HEADINGS), all: all.length });
  return {
    ...(await toLedgerRows(
      db,
      entries,
      folded ? await foldedInto(db, licencesIn(entries)) : new Map(),
      [...Object.values(filter.with ?? {}), ...Object.values(filter.without ?? {})].flat(),
    )),
    total,
    recorded,
    days,
    facets: {
      kinds,
      reasons: few(reasons),
      places: few(places),
      organisations: few(organisations),
    },
    zone,
    ...state,
    views,
    // Those without a spot on the map are told by number too: nothing is left out silently.
    map: {
      spots: places.slice(0, MOST_PLACES).flatMap(({ value, entries: n }) => {
        const at = deps.places.locate(value);
        return at === null ? [] : [{ place: value, entries: n, at }];
      }),
      unplaced,
    },
    folded,
    everything: holds(actor.role, 'read-record'),
    older: entries.length === ROWS ? (entries.at(-1)?.entry.sequence ?? null) : null,
  };
}

/** The licences of the opens among these entries. */
function licencesIn(entries: readonly EntryRow[]): LicenceId[] {
  return entries.flatMap(({ entry: { action, licence } }) =>
    licence !== null && (action === 'document.opened' || action === 'document.checked')
      ? [licence]
      : [],
  );
}

/** The most values of a heading that are listed at once. */
const MOST_VALUES = 2_000;

/** Every value of one heading with how many entries have it, under the filters of the others. */
export async function listFacet(
  deps: Deps,
  actor: StaffActor,
  { facet, ...input }: FacetInput,
): Promise<{ readonly values: readonly FacetCount[] }> {
  const filter = filterOf(actor, input);
  const zone = (await findOrganisation(deps.db.read))?.zone ?? 'UTC';
  const { kinds, reasons, places, organisations } = await deps.counts.count(
    filter,
    edgesOf(filter, zone),
  );
  const found = {
    kind: kinds,
    outcome: [],
    reason: reasons,
    place: places,
    organisation: organisations,
  }[facet];
  return { values: found.slice(0, MOST_VALUES) };
}

/** The most entries of one open that are listed. */
const MOST_WITHIN = 5_000;

/** What happened within one open: its key, its pages. */
export async function listOpen(
  deps: Deps,
  actor: StaffActor,
  { licence }: { readonly licence: LicenceId },
): Promise<Pick<LedgerPage, 'rows' | 'named'>> {
  const db = deps.db.read;
  return toLedgerRows(db, await entriesOfOpen(db, licence, filterOf(actor, {}).own, MOST_WITHIN));
}

/** A filter as an export states it. */
function statedFilter({ with: wanted = {}, without = {}, from, to, own }: EntryFilter): string {
  const each = (chosen: typeof wanted, sign: string) =>
    Object.entries(chosen).map(([name, values]) => `${name}${sign}${values.join(', ')}`);
  return [
    ...each(wanted, '='),
    ...each(without, '≠'),
    ...(from === undefined ? [] : [`from=${from}`]),
    ...(to === undefined ? [] : [`to=${to}`]),
    ...(own === undefined ? [] : [`own=${own}`]),
  ].join('; ');
}

function passesKind({ with: wanted = {}, without = {} }: EntryFilter, kind: string): boolean {
  return wanted.kind?.includes(kind) !== false && without.kind?.includes(kind) !== true;
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
export async function exportLedger(
  deps: Deps,
  actor: StaffActor,
  input: LedgerInput,
): Promise<AsyncGenerator<Uint8Array, void>> {
  const filter = filterOf(actor, input);
  if (running >= MOST_EXPORTS) throw new ServiceError('exports-running');
  const zone = (await findOrganisation(deps.db.read))?.zone ?? 'UTC';
  const { total, kinds } = await deps.counts.count(filter, edgesOf(filter, zone));
  const stated = statedFilter(filter);
  await recordAlone(deps, {
    action: 'ledger.exported',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    details: { rows: total, filter: stated },
  });
  const counted = kinds
    .filter(({ value }) => passesKind(filter, value))
    .map(({ value, entries }) => `${value} ${String(entries)}`)
    .join(', ');
  const head =
    ledgerHeading({ now: deps.clock.now(), zone, filter: stated, rows: total, kinds: counted }) +
    `\r\n${EXPORT_COLUMNS.join(',')}\r\n`;
  return withHead(
    head,
    deps.exporter.csv(filter, spanOf(filter, zone), await lastSequence(deps.db.read)),
  );
}

async function* withHead(
  head: string,
  rows: AsyncGenerator<Uint8Array, void>,
): AsyncGenerator<Uint8Array, void> {
  running++;
  try {
    yield new TextEncoder().encode(head);
    yield* rows;
  } finally {
    running--;
  }
}

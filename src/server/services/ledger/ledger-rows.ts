import 'server-only';
import type { LedgerRow, Named } from '@/contracts/ledger';
import { deviceLabel } from '@/core/insight/device-label';
import { didWords } from '@/core/insight/did-words';
import { REASON_LABEL, factLine, ownFacts, toWhom } from '@/core/insight/entry-facts';
import type { Json } from '@/core/ledger/canonical';
import type { Entry } from '@/core/ledger/entry';
import type { Reading } from '@/server/db/database';
import type { EntryRow } from '@/server/repositories/ledger/ledger-reader';
import { namesOf } from '@/server/repositories/ledger/name-repository';

function whoOf(
  entry: Entry,
  personal: EntryRow['personal'],
  names: ReadonlyMap<string, string>,
): string {
  const known = entry.actor.id === null ? undefined : names.get(entry.actor.id);
  if (known !== undefined) return known;
  if (entry.actor.kind === 'system') return 'Embargo';
  return personal['address'] ?? 'not known';
}

function whatOf(
  { document, dispatch, recipient }: Entry,
  names: ReadonlyMap<string, string>,
): string {
  const target = document ?? dispatch ?? recipient;
  return target === null ? '' : (names.get(target) ?? '');
}

/** One entry as a list shows it. */
function toLedgerRow(
  { entry, hash, personal }: EntryRow,
  names: ReadonlyMap<string, string>,
): LedgerRow {
  const { v: _v, personal: _commitments, ...rest } = entry;
  const { address = '', place = '', network = '', agent = '', text = '' } = personal;
  return {
    ...rest,
    hash,
    who: whoOf(entry, personal, names),
    what: whatOf(entry, names),
    address,
    place,
    network,
    browser: agent === '' ? '' : deviceLabel(agent),
    text,
    within: 0,
  };
}

const opens: ReadonlySet<Entry['action']> = new Set<Entry['action']>([
  'document.opened',
  'document.checked',
]);

/** Every text in a value: ids are among them. */
function textsIn(value: Json): string[] {
  if (typeof value === 'string') return [value];
  return value === null || typeof value !== 'object'
    ? []
    : Object.values(value).flatMap((each: Json) => textsIn(each));
}

/**
 * Entries as a list shows them, with names for the ids they hold and for some more. `within`: how
 * many are told with each open, by licence.
 */
export async function toLedgerRows(
  db: Reading,
  entries: readonly EntryRow[],
  within: ReadonlyMap<string, number> = new Map(),
  also: readonly string[] = [],
): Promise<{ readonly rows: LedgerRow[]; readonly named: Named }> {
  const ids = new Set(
    also.concat(
      entries
        .flatMap(({ entry }) => [
          entry.actor.id,
          entry.document,
          entry.version,
          entry.recipient,
          entry.dispatch,
          entry.device,
          entry.rule,
          ...textsIn(entry.details),
        ])
        .filter((id) => id !== null),
    ),
  );
  const names = await namesOf(db, [...ids]);
  return {
    rows: entries.map((row) => ({
      ...toLedgerRow(row, names),
      within: opens.has(row.entry.action) ? (within.get(row.entry.licence ?? '') ?? 0) : 0,
    })),
    named: Object.fromEntries(names),
  };
}

/** The columns of an exported row. */
export const EXPORT_COLUMNS = [
  'sequence',
  'occurredAt',
  'receivedAt',
  'who',
  'did',
  'action',
  'outcome',
  'reason',
  'what',
  'to',
  'version',
  'device',
  'place',
  'network',
  'detail',
  'document',
  'recipient',
  'dispatch',
  'hash',
] as const;

/** What a line leaves to the column of reasons. */
const WITH_REASON_BESIDE = [REASON_LABEL];

/** One entry as a line of an export tells it: moments in UTC, as everywhere in the file. */
export function toExportRow(
  found: EntryRow,
  names: ReadonlyMap<string, string>,
): Readonly<Record<(typeof EXPORT_COLUMNS)[number], string | number>> {
  const { entry, hash, personal } = found;
  const {
    sequence,
    occurredAt,
    receivedAt,
    action,
    outcome,
    reason,
    version,
    device,
    document,
    recipient,
    dispatch,
  } = entry;
  const nameOf = (id: string): string => names.get(id) ?? id;
  const words = { nameOf, moment: (at: number) => new Date(at).toISOString() };
  const told = {
    action,
    outcome,
    reason,
    actor: entry.actor,
    recipient,
    dispatch,
    version,
    device,
    details: entry.details,
    text: personal['text'] ?? '',
    address: personal['address'] ?? '',
  };
  return {
    sequence,
    occurredAt,
    receivedAt,
    who: whoOf(entry, personal, names),
    did: didWords(told),
    action,
    outcome,
    reason: reason ?? '',
    what: whatOf(entry, names),
    to: toWhom(told, words),
    version: version === null ? '' : nameOf(version),
    device: device === null ? '' : nameOf(device),
    place: personal['place'] ?? '',
    network: personal['network'] ?? '',
    detail: factLine(ownFacts(told, words), WITH_REASON_BESIDE),
    document: document ?? '',
    recipient: recipient ?? '',
    dispatch: dispatch ?? '',
    hash,
  };
}

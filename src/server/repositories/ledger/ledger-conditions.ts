import 'server-only';
import { gte, inArray, lt, sql, type SQL } from 'drizzle-orm';
import type { StaffId } from '@/core/base/ids';
import { DIMENSIONS, type Dimension, type EntryFilter, type Span } from '@/core/insight/filter';
import { actionsOf, KINDS } from '@/core/insight/kinds';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { ownDispatches, ownDocuments } from '@/server/repositories/ledger/own-repository';

function kindIs(kind: string): SQL {
  if (kind === 'refused') return sql`${ledgerEntries.outcome} = 'refused'`;
  const actions = KINDS.filter((each) => each === kind).flatMap((each) => actionsOf(each));
  return sql`(${inArray(ledgerEntries.action, actions)} AND ${ledgerEntries.outcome} <> 'refused')`;
}

/** A place, and every place within it. */
function placeIs(place: string): SQL {
  return sql`(value = ${place} OR (value >= ${`${place},`} AND value < ${`${place}-`}))`;
}

/** Whether an entry has one of these values; `among`: how a column is compared with them. */
const HAS_ONE: Readonly<Record<Dimension, (among: SQL, values: readonly string[]) => SQL>> = {
  kind: (_among, values) => sql`(${sql.join(values.map(kindIs), sql` OR `)})`,
  outcome: (among) => sql`${ledgerEntries.outcome} ${among}`,
  reason: (among) => sql`${ledgerEntries.reason} ${among}`,
  organisation: (among) =>
    sql`${ledgerEntries.recipientId} IN (SELECT id FROM recipients WHERE organisation ${among})`,
  place: (_among, values) =>
    sql`${ledgerEntries.sequence} IN (SELECT sequence FROM ledger_personal
      WHERE field = 'place' AND (${sql.join(values.map(placeIs), sql` OR `)}))`,
  document: (among) => sql`${ledgerEntries.documentId} ${among}`,
  // What others tried by the link of somebody belongs to the record of that person as well.
  recipient: (among) =>
    sql`(${ledgerEntries.recipientId} ${among} OR ${ledgerEntries.linkOf} ${among})`,
  dispatch: (among) => sql`${ledgerEntries.dispatchId} ${among}`,
  actor: (among) => sql`${ledgerEntries.actorId} ${among}`,
  device: (among) => sql`${ledgerEntries.deviceId} ${among}`,
  version: (among) => sql`${ledgerEntries.versionId} ${among}`,
};

function hasOne(dimension: Dimension, values: readonly string[]): SQL {
  // One value is found by its index; several are taken from one parameter, however many they are.
  const [only = ''] = values;
  const among =
    values.length === 1
      ? sql`= ${only}`
      : sql`IN (SELECT value FROM json_each(${JSON.stringify(values)}))`;
  return HAS_ONE[dimension](among, values);
}

/** What somebody on the staff answers for or did themselves. */
function isOwn(staff: StaffId): SQL {
  return sql`(${ledgerEntries.documentId} IN ${ownDocuments(staff)}
    OR ${ledgerEntries.dispatchId} IN ${ownDispatches(staff)}
    OR ${ledgerEntries.actorId} = ${staff})`;
}

/** What an entry has to be to pass a filter, within a span. */
export function conditionsOf(
  { with: wanted = {}, without = {}, own }: EntryFilter,
  { begins, ends }: Span,
): SQL[] {
  const each = DIMENSIONS.flatMap((dimension) => {
    const [chosen = [], refused = []] = [wanted[dimension], without[dimension]];
    // An entry without any value has none of those that are refused.
    return [
      ...(chosen.length === 0 ? [] : [hasOne(dimension, chosen)]),
      ...(refused.length === 0 ? [] : [sql`coalesce(${hasOne(dimension, refused)}, 0) = 0`]),
    ];
  });
  return [
    ...each,
    ...(own === undefined ? [] : [isOwn(own)]),
    ...(begins === undefined ? [] : [gte(ledgerEntries.occurredAt, begins)]),
    ...(ends === undefined ? [] : [lt(ledgerEntries.occurredAt, ends)]),
  ];
}

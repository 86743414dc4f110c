import 'server-only';
import { opensHeading } from '@/core/insight/export-words';
import { setImmediate } from 'node:timers/promises';
import { csvField } from '@/core/base/csv';
import { dayAfter, dayBegins } from '@/core/base/days';
import { groupBy } from '@/core/base/group';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import {
  opensByPerson,
  type Given,
  type OpensFilter,
  type PersonOpens,
} from '@/core/insight/opens';
import type { Entry } from '@/core/ledger/entry';
import { holds } from '@/core/policy/permissions';
import type { OpensInput, OpensPage } from '@/contracts/opens';
import { findDocuments } from '@/server/repositories/documents/document-repository';
import { personalOf } from '@/server/repositories/ledger/ledger-reader';
import {
  givenPairs,
  openDays,
  openEntries,
  opensByPair,
  type OpenRow,
} from '@/server/repositories/ledger/opens-repository';
import { namesOf } from '@/server/repositories/ledger/name-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { recipientsByIds } from '@/server/repositories/people/people-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { spanOf } from '@/server/services/ledger/list-entries';
import { recordAlone } from '@/server/services/base/record';

/** People shown; the totals count them all, and the export has them all. */
const SHOWN = 100;

type Asked = OpensInput & Pick<OpensFilter, 'own'>;

/** What was asked about, kept to what the asker may read of. */
function keptTo(actor: StaffActor, input: OpensInput): Asked {
  return holds(actor.role, 'read-record') ? input : { ...input, own: actor.id };
}

/** Everybody who opened something or was given something, within what was asked about. */
async function counted(deps: Pick<Deps, 'db' | 'clock'>, input: Asked, zone: string) {
  const db = deps.db.read;
  // Who was given something only later had nothing to open.
  const until = input.to === undefined ? deps.clock.now() + 1 : dayBegins(dayAfter(input.to), zone);
  const [pairs, given] = await Promise.all([opensByPair(db, input), givenPairs(db, input, until)]);
  return { ...opensByPerson(pairs, given, input.never === 'only'), given };
}

async function zoneOf(deps: Pick<Deps, 'db'>): Promise<string> {
  return (await findOrganisation(deps.db.read))?.zone ?? 'UTC';
}

/** Who opened how often, from when to when, and who never did: people with their documents, over any days. */
export async function viewOpens(
  deps: Deps,
  actor: StaffActor,
  wanted: OpensInput,
): Promise<OpensPage> {
  const input = keptTo(actor, wanted);
  const db = deps.db.read;
  const zone = await zoneOf(deps);
  const { people, totals } = await counted(deps, input, zone);
  const shown = people.slice(0, SHOWN);
  const ids = shown.map(({ recipient }) => recipient as RecipientId);
  const papers = [
    ...new Set(shown.flatMap(({ cells }) => cells.map(({ document }) => document as DocumentId))),
  ];
  const [known, documents, days, names] = await Promise.all([
    recipientsByIds(db, ids),
    findDocuments(db, papers),
    openDays(db, ids, input),
    namesOf(
      db,
      [input.document, input.recipient, input.dispatch].filter((id) => id !== undefined),
    ),
  ]);
  const personOf = new Map(known.map((person) => [person.id, person]));
  const daysOf = groupBy(days, ({ recipient }) => recipient);
  const nameOf = (id: string | undefined): string | null =>
    id === undefined ? null : (names.get(id) ?? id);
  const opened = days.map(({ day }) => day).sort();
  return {
    rows: shown.map(({ recipient, cells, ...counts }) => {
      const person = personOf.get(recipient as RecipientId);
      return {
        recipient: recipient as RecipientId,
        name: person?.name ?? '',
        address: person?.address ?? '',
        organisation: person?.organisation ?? '',
        ...counts,
        cells: cells.map((cell) => ({ ...cell, document: cell.document as DocumentId })),
        days: (daysOf.get(recipient) ?? []).map(({ day, opens }) => ({ day, opens })),
      };
    }),
    people: people.length,
    totals,
    zone,
    documents: documents.map(({ id, title, reference }) => ({ id, title, reference })),
    span:
      opened.length === 0
        ? null
        : { first: input.from ?? opened[0] ?? '', last: input.to ?? opened.at(-1) ?? '' },
    names: {
      document: nameOf(input.document),
      recipient: nameOf(input.recipient),
      dispatch: nameOf(input.dispatch),
    },
  };
}

const COLUMNS = [
  'time',
  'person',
  'email',
  'organisation',
  'reference',
  'document',
  'version',
  'outcome',
  'reason',
  'device',
  'browser',
  'place',
  'ip address',
  'rule',
  'sequence',
];
const BLOCK = 1_000;

type Names = {
  readonly people: ReadonlyMap<
    string,
    { readonly name: string; readonly address: string; readonly organisation: string }
  >;
  readonly papers: ReadonlyMap<string, { readonly title: string; readonly reference: string }>;
};

async function namesFor(
  deps: Pick<Deps, 'db'>,
  pairs: readonly { readonly recipient: string; readonly document: string }[],
): Promise<Names> {
  const [people, papers] = await Promise.all([
    recipientsByIds(deps.db.read, [
      ...new Set(pairs.map(({ recipient }) => recipient as RecipientId)),
    ]),
    findDocuments(deps.db.read, [...new Set(pairs.map(({ document }) => document as DocumentId))]),
  ]);
  return {
    people: new Map(people.map((person) => [person.id, person])),
    papers: new Map(papers.map((paper) => [paper.id, paper])),
  };
}

function csvLine(fields: readonly string[]): string {
  return `${fields.map(csvField).join(',')}\r\n`;
}

function whoAndWhat(
  { people, papers }: Names,
  recipient: string,
  document: string,
): [string, string, string, string, string] {
  const [person, paper] = [people.get(recipient), papers.get(document)];
  return [
    person?.name ?? '',
    person?.address ?? '',
    person?.organisation ?? '',
    paper?.reference ?? '',
    paper?.title ?? '',
  ];
}

function lineOf(
  { body, version, dispatch }: OpenRow,
  names: Names,
  personal: Readonly<Record<string, string>>,
): string {
  const { occurredAt, outcome, reason, recipient, document, device, sequence, rule } = JSON.parse(
    body,
  ) as Entry;
  const by = rule === null ? '' : rule.startsWith('grt_') ? `grant of ${dispatch ?? ''}` : rule;
  return csvLine([
    occurredAt,
    ...whoAndWhat(names, recipient ?? '', document ?? ''),
    version === null ? '' : String(version),
    outcome,
    reason ?? '',
    device ?? '',
    personal['agent'] ?? '',
    personal['place'] ?? '',
    personal['network'] ?? '',
    by,
    String(sequence),
  ]);
}

/** Those who were given something and never opened it, a line each. */
function neverLines(people: readonly PersonOpens[], names: Names): string {
  const cells = people.flatMap(({ recipient, cells: of }) =>
    of.filter(({ opens }) => opens === 0).map(({ document }): Given => ({ recipient, document })),
  );
  return cells
    .map(({ recipient, document }) =>
      csvLine([
        '',
        ...whoAndWhat(names, recipient, document),
        '',
        'never opened',
        '',
        '',
        '',
        '',
        '',
        '',
        '',
      ]),
    )
    .join('');
}

/**
 * The same as CSV: every open and refusal, then who never opened what. Lines at the head state the
 * filter, the zone and the totals of the screen; that it was exported is recorded.
 */
export async function exportOpens(
  deps: Deps,
  actor: StaffActor,
  wanted: OpensInput,
): Promise<AsyncGenerator<Uint8Array, void>> {
  const input = keptTo(actor, wanted);
  const zone = await zoneOf(deps);
  const { people, totals } = await counted(deps, input, zone);
  const stated = Object.entries(input)
    .map(([key, value]) => `${key}=${value}`)
    .join('; ');
  await recordAlone(deps, {
    action: 'ledger.exported',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    details: { opens: totals.opens, filter: stated },
  });
  const names = await namesFor(
    deps,
    people.flatMap(({ recipient, cells }) =>
      cells.map(({ document }) => ({ recipient, document })),
    ),
  );
  const head = `${opensHeading({ now: deps.clock.now(), zone, filter: stated, totals })}\r\n`;
  return pieces(deps, input, zone, `${head}${csvLine(COLUMNS)}`, names, neverLines(people, names));
}

async function* pieces(
  deps: Pick<Deps, 'db'>,
  input: Asked,
  zone: string,
  head: string,
  names: Names,
  tail: string,
): AsyncGenerator<Uint8Array, void> {
  const encoder = new TextEncoder();
  yield encoder.encode(head);
  const span = spanOf(input, zone);
  for (let after = 0; input.never === undefined;) {
    const rows = await openEntries(deps.db.read, input, span, after, BLOCK);
    const personal =
      rows.length === 0
        ? new Map<number, Record<string, string>>()
        : await personalOf(deps.db.read, rows.map(({ sequence }) => sequence).reverse(), [
            'agent',
            'place',
            'network',
          ]);
    yield encoder.encode(
      rows.map((row) => lineOf(row, names, personal.get(row.sequence) ?? {})).join(''),
    );
    if (rows.length < BLOCK) break;
    after = rows.at(-1)?.sequence ?? after;
    await setImmediate();
  }
  yield encoder.encode(tail);
}

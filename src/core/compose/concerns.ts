import type { DocumentId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import type { Ceiling } from '@/core/policy/ceiling';
import { underCeilings } from '@/core/policy/ceiling';
import { windowState } from '@/core/policy/decide';
import { brokenDependencies, termsText, type Terms } from '@/core/policy/rights';
import { termsOfRow, type Row, type Sheet } from '@/core/compose/sheet';
import type { TitlesIn } from '@/core/compose/hidden-titles';
import type { Mend } from '@/core/compose/mend';

/**
 * What is looked at before a dispatch leaves. What stops has to be mended; what asks is mended or
 * left as it is, and the ledger says that it was.
 */
export const CONCERNS = {
  'no-documents': 'stops',
  'no-recipients': 'stops',
  'document-revoked': 'stops',
  'document-for-nobody': 'stops',
  'row-without-documents': 'stops',
  blocked: 'stops',
  'opens-nothing': 'stops',
  'public-domain': 'stops',
  'keep-needs': 'stops',
  'needs-own-machine': 'stops',
  'local-by-hand': 'stops',
  'end-past': 'stops',
  'end-before-start': 'stops',
  'no-end': 'asks',
  'looks-like': 'asks',
  'public-mail': 'asks',
  'passes-to-nobody': 'asks',
  'not-yet': 'asks',
  'only-kept': 'asks',
  'message-marked-lower': 'asks',
  'title-in-mail': 'asks',
} as const satisfies Record<string, 'stops' | 'asks'>;
export type ConcernCode = keyof typeof CONCERNS;
/** What can be left as it is. */
export type DoubtCode = {
  [Code in ConcernCode]: (typeof CONCERNS)[Code] extends 'asks' ? Code : never;
}[ConcernCode];
export const DOUBTS = (Object.keys(CONCERNS) as ConcernCode[]).filter(isDoubt);

export function isDoubt(code: ConcernCode): code is DoubtCode {
  return CONCERNS[code] === 'asks';
}

export type Concern = {
  readonly code: ConcernCode;
  /** The rows it is about, by their keys; empty: about none in particular. */
  readonly rows: readonly string[];
  readonly documents: readonly DocumentId[];
  /** The known address that one is a slip away from. */
  readonly known?: string;
  /** What would mend it, the likeliest first. */
  readonly mends: readonly Mend[];
};

/** What is known about a row besides what is set for it. Absent where nothing is known yet. */
export type RowFacts = {
  /** Whether somebody was sent anything before, or is listed among the people. */
  readonly known: boolean;
  readonly blocked: boolean;
  readonly looksLike: string | null;
  /** Whether everybody can have an address there. */
  readonly publicMail: boolean;
};

export type Situation = {
  readonly now: Moment;
  /** The terms in common as they stand. */
  readonly common: Terms;
  /** The documents that were chosen, and whether each is revoked. */
  readonly revoked: ReadonlySet<DocumentId>;
  /** Those of a kind that has no pages to be shown: they can only be kept. */
  readonly onlyKept: ReadonlySet<DocumentId>;
  /** Those that were encrypted on their sender's machine: they open on people's own machines alone. */
  readonly local: ReadonlySet<DocumentId>;
  /** Whether protected files are attached, or handed out by the service. */
  readonly carriesFile: boolean;
  readonly factsOf: (key: string) => RowFacts | undefined;
  readonly ceilingsOf: (document: DocumentId) => readonly Ceiling[];
  /** The end that is offered where there is none. */
  readonly usualEnd: Moment | null;
  /** Whether it is mailed, so that something arrives at once. */
  readonly mailed: boolean;
  /** Where the mail names a marking below that of what it carries; `null`: nowhere. */
  readonly markedLower: 'subject' | 'note' | null;
  /** Where the mail names titles that their markings keep out of it; `null`: nowhere. */
  readonly titlesIn: TitlesIn | null;
};

type Judged = { readonly row: Row; readonly terms: Terms; readonly facts: RowFacts | undefined };

/** Which rows a concern about one row is about. */
type RowTest = (judged: Judged, situation: Situation, sheet: Sheet) => boolean;

function given(sheet: Sheet, row: Row): DocumentId[] {
  return sheet.documents.filter((id) => !row.without.includes(id));
}

function isOver({ until }: Terms, now: Moment): boolean {
  return until !== null && until <= now;
}

/** Whether ceilings leave nothing of what a row is given, on any document. */
function opensNothing({ row, terms }: Judged, situation: Situation, sheet: Sheet): boolean {
  const documents = given(sheet, row).filter((id) => !situation.revoked.has(id));
  if (documents.length === 0 || isOver(terms, situation.now)) return false;
  return documents.every((id) => {
    const { terms: left } = underCeilings(terms, situation.now, situation.ceilingsOf(id));
    const window = windowState({ revoked: false, terms: left }, situation.now);
    return !left.rights.includes('read') || window === 'expired';
  });
}

/** Whether a document opens on nobody's own machine under these terms and the ceilings over it. */
function staysHere(terms: Terms, id: DocumentId, { now, ceilingsOf }: Situation): boolean {
  const { terms: left } = underCeilings(terms, now, ceilingsOf(id));
  return left.conditions?.offline == null;
}

const ROW_TESTS: readonly (readonly [ConcernCode, RowTest])[] = [
  [
    'row-without-documents',
    ({ row }, _, sheet) => sheet.documents.length > 0 && given(sheet, row).length === 0,
  ],
  ['blocked', ({ facts }) => facts?.blocked === true],
  ['public-domain', ({ row, facts }) => row.kind === 'domain' && facts?.publicMail === true],
  ['keep-needs', ({ terms }) => brokenDependencies(terms).length > 0],
  [
    'needs-own-machine',
    ({ row, terms }, situation, sheet) =>
      given(sheet, row).some((id) => situation.local.has(id) && staysHere(terms, id, situation)),
  ],
  ['end-past', ({ terms }, { now }) => isOver(terms, now)],
  [
    'end-before-start',
    ({ terms: { from, until } }) => from !== null && until !== null && until <= from,
  ],
  ['no-end', ({ terms }) => terms.until === null],
  [
    'public-mail',
    ({ row, facts }) => row.kind === 'person' && facts?.known === false && facts.publicMail,
  ],
  [
    'passes-to-nobody',
    ({ terms }) => terms.rights.includes('pass-on') && terms.conditions?.passOn == null,
  ],
  [
    'not-yet',
    ({ terms: { from }, row }, { now, mailed }) =>
      mailed && row.kind === 'person' && from !== null && from > now,
  ],
  [
    'only-kept',
    ({ row, terms }, { onlyKept }, sheet) =>
      !terms.rights.includes('keep') && given(sheet, row).some((id) => onlyKept.has(id)),
  ],
];

/** Tests that need no more than the terms are made once for rows with the same ones. */
function opensNothingTest(situation: Situation, sheet: Sheet): (judged: Judged) => boolean {
  const known = new Map<string, boolean>();
  return (judged) => {
    const name = `${termsText(judged.terms)} ${judged.row.without.join(' ')}`;
    const found = known.get(name) ?? opensNothing(judged, situation, sheet);
    known.set(name, found);
    return found;
  };
}

/** All that has to be looked at before a sheet is sent, what stops it first. */
export function concernsOf(sheet: Sheet, situation: Situation): Concern[] {
  const judged = sheet.rows.map((row) => ({
    row,
    terms: termsOfRow(row, situation.common),
    facts: situation.factsOf(row.key),
  }));
  const nothing = opensNothingTest(situation, sheet);
  const tests: readonly (readonly [ConcernCode, (each: Judged) => boolean])[] = [
    ...ROW_TESTS.map(
      ([code, test]) => [code, (each: Judged) => test(each, situation, sheet)] as const,
    ),
    ['opens-nothing', nothing],
  ];
  const ofRows = tests.flatMap(([code, test]): Concern[] => {
    const rows = judged.filter(test).map(({ row }) => row.key);
    const about: Partial<Record<ConcernCode, ReadonlySet<DocumentId>>> = {
      'only-kept': situation.onlyKept,
      'needs-own-machine': situation.local,
    };
    const documents = [...(about[code] ?? [])];
    return rows.length === 0 ? [] : [concern(code, { rows, documents }, situation)];
  });
  return [
    ...ofWhole(sheet),
    ...ofDocuments(sheet, situation),
    ...ofRows,
    ...ofMessage(situation),
    ...slips(judged, situation),
  ].sort((a, b) => Number(isDoubt(a.code)) - Number(isDoubt(b.code)));
}

function ofWhole(sheet: Sheet): Concern[] {
  const none = { rows: [], documents: [], mends: [] };
  return [
    ...(sheet.documents.length === 0 ? [{ code: 'no-documents' as const, ...none }] : []),
    ...(sheet.rows.length === 0 ? [{ code: 'no-recipients' as const, ...none }] : []),
  ];
}

function ofDocuments(sheet: Sheet, situation: Situation): Concern[] {
  const revoked = sheet.documents.filter((id) => situation.revoked.has(id));
  const unsent =
    sheet.rows.length === 0
      ? []
      : sheet.documents.filter((id) => sheet.rows.every(({ without }) => without.includes(id)));
  const local = sheet.documents.filter((id) => situation.local.has(id));
  return [
    ...(local.length === 0 || !situation.carriesFile
      ? []
      : [concern('local-by-hand', { documents: local }, situation)]),
    ...(revoked.length === 0
      ? []
      : [concern('document-revoked', { documents: revoked }, situation)]),
    ...(unsent.length === 0
      ? []
      : [concern('document-for-nobody', { documents: unsent }, situation)]),
  ];
}

function ofMessage({ markedLower, titlesIn }: Situation): Concern[] {
  // A subject stands in the mail whatever becomes of the note.
  const mendsIn = (where: 'subject' | 'note'): Mend[] =>
    where === 'note' ? [{ kind: 'note-behind-link' }] : [];
  const concerns: Concern[] = [];
  if (markedLower !== null)
    concerns.push({
      code: 'message-marked-lower',
      rows: [],
      documents: [],
      mends: mendsIn(markedLower),
    });
  if (titlesIn !== null)
    concerns.push({
      code: 'title-in-mail',
      rows: [],
      documents: titlesIn.documents,
      mends: mendsIn(titlesIn.where),
    });
  return concerns;
}

/** One for each address that looks like a known one: each is a question of its own. */
function slips(judged: readonly Judged[], situation: Situation): Concern[] {
  return judged.flatMap(({ row, facts }): Concern[] => {
    const known = facts?.looksLike ?? null;
    if (row.kind !== 'person' || known === null) return [];
    return [
      {
        ...concern('looks-like', { rows: [row.key] }, situation),
        known,
        mends: [
          { kind: 'correct-address', row: row.key, address: known },
          { kind: 'remove-rows', rows: [row.key] },
        ],
      },
    ];
  });
}

type About = { readonly rows?: readonly string[]; readonly documents?: readonly DocumentId[] };

function concern(
  code: ConcernCode,
  { rows = [], documents = [] }: About,
  { usualEnd }: Situation,
): Concern {
  return { code, rows, documents, mends: MENDS[code]({ rows, documents, usualEnd }) };
}

type Offered = About & { readonly usualEnd: Moment | null };

const removeRows = ({ rows = [] }: Offered): Mend[] => [{ kind: 'remove-rows', rows }];
const setEnd = ({ usualEnd }: Offered): Mend[] =>
  usualEnd === null ? [] : [{ kind: 'set-end', until: usualEnd }];
const dropStart = (): Mend[] => [{ kind: 'drop-start' }];
const none = (): Mend[] => [];

/** What is offered to mend each concern, the likeliest first. */
const MENDS: Readonly<Record<ConcernCode, (offered: Offered) => Mend[]>> = {
  'no-documents': none,
  'no-recipients': none,
  'document-revoked': ({ documents = [] }) => [{ kind: 'remove-documents', documents }],
  'document-for-nobody': ({ documents = [] }) => [
    { kind: 'give-documents', documents },
    { kind: 'remove-documents', documents },
  ],
  'row-without-documents': ({ rows = [] }) => [
    { kind: 'give-rows-all', rows },
    { kind: 'remove-rows', rows },
  ],
  blocked: removeRows,
  'opens-nothing': removeRows,
  'public-domain': removeRows,
  'public-mail': removeRows,
  'keep-needs': () => [{ kind: 'give-needs' }, { kind: 'take-unable' }],
  'needs-own-machine': () => [{ kind: 'give-own-machine' }],
  'local-by-hand': none,
  'end-past': setEnd,
  'no-end': setEnd,
  'end-before-start': dropStart,
  'not-yet': dropStart,
  'only-kept': () => [{ kind: 'give-keep' }],
  // Which known address was meant is another one for each row.
  'looks-like': none,
  // Where the mail names it decides.
  'message-marked-lower': none,
  'title-in-mail': none,
  'passes-to-nobody': () => [{ kind: 'pass-to-one' }, { kind: 'take-pass-on' }],
};

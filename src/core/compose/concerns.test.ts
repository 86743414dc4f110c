import { describe, expect, test } from 'vitest';
import { DAY } from '@/core/base/time';
import {
  concernsOf,
  CONCERNS,
  type Concern,
  type ConcernCode,
  type RowFacts,
  type Situation,
} from '@/core/compose/concerns';
import { mended } from '@/core/compose/mend';
import type { OwnTerms } from '@/core/compose/own-terms';
import { EMPTY_SHEET, rowOf, termsOfRow, type Row, type Sheet } from '@/core/compose/sheet';
import { NO_LIMITS, type Ceiling } from '@/core/policy/ceiling';
import type { Terms } from '@/core/policy/rights';

const NOW = 1_800_000_000_000;
const PLAN = 'doc_plan';
const LIST = 'doc_list';
const common: Terms = { rights: ['read'], from: null, until: NOW + 30 * DAY, prints: null };
const known: RowFacts = { known: true, blocked: false, looksLike: null, publicMail: false };

const person = (key: string, own: OwnTerms = {}, without: Row['without'] = []): Row => ({
  ...rowOf(key, 'person'),
  own,
  without,
});
const sheetOf = (rows: readonly Row[], over: Partial<Sheet> = {}): Sheet => ({
  ...EMPTY_SHEET,
  documents: [PLAN, LIST],
  common,
  rows,
  ...over,
});
const situation = (over: Partial<Situation> = {}): Situation => ({
  now: NOW,
  common,
  revoked: new Set(),
  onlyKept: new Set(),
  local: new Set(),
  carriesFile: false,
  factsOf: () => known,
  ceilingsOf: () => [],
  usualEnd: NOW + 30 * DAY,
  mailed: true,
  markedLower: null,
  titlesIn: null,
  ...over,
});
const codes = (sheet: Sheet, over: Partial<Situation> = {}): ConcernCode[] =>
  concernsOf(sheet, situation({ common: sheet.common ?? common, ...over })).map(({ code }) => code);
const mira = person('mira@yard.example');
const noReading: Ceiling = {
  level: 'organisation',
  subject: '',
  limits: { ...NO_LIMITS, rights: ['print'] },
  setBy: 'stf_a',
  setAt: 0,
};

describe('before a dispatch is sent', () => {
  test('nothing is said of one that is well', () => {
    expect(codes(sheetOf([mira]))).toEqual([]);
  });

  test.each<[ConcernCode, Sheet, Partial<Situation>?]>([
    ['no-documents', sheetOf([mira], { documents: [] })],
    ['no-recipients', sheetOf([])],
    ['document-revoked', sheetOf([mira]), { revoked: new Set([LIST]) }],
    ['document-for-nobody', sheetOf([person('a@yard.example', {}, [LIST])])],
    ['row-without-documents', sheetOf([mira, person('a@yard.example', {}, [PLAN, LIST])])],
    ['blocked', sheetOf([mira]), { factsOf: () => ({ ...known, blocked: true }) }],
    ['opens-nothing', sheetOf([mira]), { ceilingsOf: () => [noReading] }],
    [
      'public-domain',
      sheetOf([rowOf('@mail.example', 'domain')]),
      { factsOf: () => ({ ...known, publicMail: true }) },
    ],
    ['keep-needs', sheetOf([person('a@yard.example', { rights: { keep: true } })])],
    ['end-past', sheetOf([person('a@yard.example', { until: NOW })])],
    ['end-before-start', sheetOf([person('a@yard.example', { from: NOW + 40 * DAY })])],
    ['no-end', sheetOf([person('a@yard.example', { until: null })])],
    [
      'looks-like',
      sheetOf([mira]),
      { factsOf: () => ({ ...known, known: false, looksLike: 'mira@yarn.example' }) },
    ],
    [
      'public-mail',
      sheetOf([mira]),
      { factsOf: () => ({ ...known, known: false, publicMail: true }) },
    ],
    ['passes-to-nobody', sheetOf([person('a@yard.example', { rights: { 'pass-on': true } })])],
    ['not-yet', sheetOf([person('a@yard.example', { from: NOW + DAY })])],
    ['only-kept', sheetOf([mira]), { onlyKept: new Set([PLAN]) }],
    ['needs-own-machine', sheetOf([mira]), { local: new Set([PLAN]) }],
    ['local-by-hand', sheetOf([mira]), { local: new Set([PLAN]), carriesFile: true }],
    ['message-marked-lower', sheetOf([mira]), { markedLower: 'note' }],
    ['title-in-mail', sheetOf([mira]), { titlesIn: { where: 'subject', documents: [PLAN] } }],
  ])('%s is said', (code, sheet, over) => {
    expect(codes(sheet, over)).toContain(code);
  });

  test('every concern there is was provoked above', () => {
    expect(Object.keys(CONCERNS)).toHaveLength(21);
  });

  test('what stops it comes before what is only asked', () => {
    const found = codes(
      sheetOf([person('a@yard.example', { until: null, rights: { keep: true } })]),
    );
    expect(found).toEqual(['keep-needs', 'no-end']);
  });

  test('a window that begins later is no matter where nothing is mailed', () => {
    const later = sheetOf([person('a@yard.example', { from: NOW + DAY })]);
    expect(codes(later, { mailed: false })).toEqual([]);
  });
});

/** The one concern of this kind. */
function only(sheet: Sheet, code: ConcernCode, over: Partial<Situation> = {}): Concern {
  const found = concernsOf(sheet, situation({ common: sheet.common ?? common, ...over })).find(
    (each) => each.code === code,
  );
  if (found === undefined) throw new Error(`${code} is not said`);
  return found;
}

describe('what mends a concern', () => {
  const troubled: readonly [ConcernCode, Sheet, Partial<Situation>?][] = [
    ['document-revoked', sheetOf([mira]), { revoked: new Set([LIST]) }],
    ['document-for-nobody', sheetOf([person('a@yard.example', {}, [LIST])])],
    ['row-without-documents', sheetOf([mira, person('a@yard.example', {}, [PLAN, LIST])])],
    ['keep-needs', sheetOf([person('a@yard.example', { rights: { keep: true } })])],
    ['keep-needs', sheetOf([mira], { common: { ...common, rights: ['read', 'keep'] } })],
    ['needs-own-machine', sheetOf([mira]), { local: new Set([PLAN]) }],
    ['end-past', sheetOf([person('a@yard.example', { until: NOW })])],
    ['end-before-start', sheetOf([person('a@yard.example', { from: NOW + 40 * DAY })])],
    ['no-end', sheetOf([person('a@yard.example', { until: null }), mira])],
    ['no-end', sheetOf([mira], { common: { ...common, until: null } })],
    ['passes-to-nobody', sheetOf([person('a@yard.example', { rights: { 'pass-on': true } })])],
    ['not-yet', sheetOf([person('a@yard.example', { from: NOW + DAY })])],
    ['only-kept', sheetOf([mira]), { onlyKept: new Set([PLAN]) }],
  ];

  test.each<[ConcernCode, Sheet, Partial<Situation>?]>([...troubled])(
    '%s goes by each press that is offered',
    (code, sheet, over) => {
      const { mends } = only(sheet, code, over);
      expect(mends.length).toBeGreaterThan(0);
      for (const mend of mends) {
        const after = mended(sheet, sheet.common ?? common, mend, NOW);
        expect(codes(after, over)).not.toContain(code);
      }
    },
  );

  test('a note that is marked lower can go behind the link, a subject cannot', () => {
    const mendsAt = (markedLower: Situation['markedLower']) =>
      only(sheetOf([mira]), 'message-marked-lower', { markedLower }).mends;
    expect(mendsAt('note')).toEqual([{ kind: 'note-behind-link' }]);
    expect(mendsAt('subject')).toEqual([]);
    const titlesAt = (where: 'subject' | 'note') =>
      only(sheetOf([mira]), 'title-in-mail', { titlesIn: { where, documents: [PLAN] } }).mends;
    expect(titlesAt('note')).toEqual([{ kind: 'note-behind-link' }]);
    expect(titlesAt('subject')).toEqual([]);
    const sheet = sheetOf([mira]);
    expect(mended(sheet, common, { kind: 'note-behind-link' }, NOW)).toBe(sheet);
  });

  test('the common terms are mended where they are at fault, and rows that differ are left', () => {
    const own = person('own@yard.example', { until: NOW + DAY });
    const sheet = sheetOf([mira, own], { common: { ...common, until: null } });
    const after = mended(
      sheet,
      sheet.common ?? common,
      { kind: 'set-end', until: NOW + 9 * DAY },
      NOW,
    );
    expect(after.common?.until).toBe(NOW + 9 * DAY);
    expect(after.rows[0]?.own).toEqual({});
    expect(after.rows[1]).toBe(own);
  });

  test('keep is given what it needs in that row alone', () => {
    const keeper = person('a@yard.example', { rights: { keep: true, print: true }, prints: 2 });
    const after = mended(sheetOf([keeper, mira]), common, { kind: 'give-needs' }, NOW);
    const [kept, other] = after.rows.map((row) => termsOfRow(row, common));
    expect(kept).toMatchObject({ rights: ['read', 'copy', 'print', 'keep'], prints: null });
    expect(other?.rights).toEqual(['read']);
  });

  test('a slip is put right, also where the one who was meant is there already', () => {
    const slip = { kind: 'correct-address', row: 'mria@yard.example', address: mira.key } as const;
    const typed = person('mria@yard.example', { rights: { print: true } });
    expect(mended(sheetOf([typed]), common, slip, NOW).rows).toMatchObject([
      { key: mira.key, own: { rights: { print: true } } },
    ]);
    expect(mended(sheetOf([mira, typed]), common, slip, NOW).rows).toEqual([mira]);
  });
});

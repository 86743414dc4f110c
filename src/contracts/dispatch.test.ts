import { newLayer } from '@/core/watermark/layers';
import { describe, expect, test } from 'vitest';
import { dispatchInput, termsInput } from '@/contracts/dispatch';
import { keepDraftInput } from '@/contracts/draft';
import { ledgerInput } from '@/contracts/ledger';

const terms = { rights: ['read'], from: null, until: null, prints: null };
const input = {
  documents: ['doc_00000000000000000001'],
  recipients: [{ address: ' Mira@Brackwater.EXAMPLE ' }],
  terms,
  subject: ' For you ',
  note: '',
  watermark: [newLayer('tiled', '{address}')],
};
const wrong = (value: unknown): string[] =>
  dispatchInput.safeParse(value).error?.issues.map(({ message }) => message) ?? [];

describe('a dispatch as it is asked for', () => {
  test('is brought into one spelling', () => {
    expect(dispatchInput.parse(input)).toMatchObject({
      subject: 'For you',
      recipients: [{ address: 'mira@brackwater.example', name: '', organisation: '' }],
    });
  });

  test.each<[string, unknown, RegExp]>([
    ['no document', { ...input, documents: [] }, /at least one document/],
    [
      'something that is no document',
      { ...input, documents: ['grt_00000000000000000001'] },
      /no such document/,
    ],
    ['nobody', { ...input, recipients: [] }, /at least one recipient/],
    [
      'no address',
      { ...input, recipients: [{ address: 'mira' }] },
      /“mira” is not an email address/,
    ],
    ['no subject', { ...input, subject: '  ' }, /the subject is missing/],
    [
      'a token nobody knows',
      { ...input, watermark: [newLayer('tiled', '{password}')] },
      /\{password\} is not a piece/,
    ],
    [
      'an end before the start',
      { ...input, terms: { ...terms, from: 20, until: 10 } },
      /the end is before the start/,
    ],
    [
      'keep without copy',
      { ...input, terms: { ...terms, rights: ['read', 'print', 'keep'] } },
      /keep needs Copy text/,
    ],
    [
      'keep with limited prints',
      { ...input, terms: { ...terms, rights: ['read', 'copy', 'print', 'keep'], prints: 2 } },
      /keep needs Print without a limit/,
    ],
    [
      'a person’s own terms that cannot stand',
      {
        ...input,
        recipients: [{ address: 'a@b.example', terms: { ...terms, rights: ['print'] } }],
      },
      /print needs Read/,
    ],
  ])('with %s is refused in words', (_name, value, words) => {
    expect(wrong(value).join('; ')).toMatch(words);
  });

  test('takes no right that has no effect yet', () => {
    expect(termsInput.safeParse({ ...terms, rights: ['read', 'revise'] }).success).toBe(false);
  });
});

test('a draft may be as unfinished as it likes, and no larger than it need be', () => {
  const row = {
    key: 'half an addr',
    kind: 'person',
    name: '',
    organisation: '',
    own: { rights: { print: true }, until: 1 },
    without: [],
  };
  const body = {
    sheet: { documents: [], rows: [row], common: { ...terms, until: 1 }, saved: null },
    subject: '',
    note: '',
    watermark: [],
    way: { form: 'link', delivery: 'mail', titleOnCover: false, noteInMail: true, reason: '' },
    waved: [{ code: 'no-end', rows: ['half an addr'] }],
  };
  const isFine = (changed: object): boolean =>
    keepDraftInput.safeParse({ id: null, body: { ...body, ...changed } }).success;
  expect(isFine({})).toBe(true);
  expect(isFine({ note: 'x'.repeat(5_001) })).toBe(false);
  expect(isFine({ sheet: { ...body.sheet, rows: Array(12_001).fill(row) } })).toBe(false);
  expect(isFine({ waved: [{ code: 'blocked', rows: [] }] })).toBe(false);
});

test('filters of the ledger are checked, days among them', () => {
  expect(ledgerInput.parse({ from: '2026-11-25', before: '12', kind: 'refused' })).toEqual({
    from: '2026-11-25',
    before: 12,
    kind: ['refused'],
  });
  for (const given of [
    { from: 'yesterday' },
    { from: '2026-13-01' },
    { kind: 'everything' },
    { before: '0' },
  ])
    expect(ledgerInput.safeParse(given).success).toBe(false);
});

// What comes in from outside is taken or refused with a sentence, before anything happens.
import { newLayer } from '@/core/watermark/layers';
import { describe, expect, test } from 'vitest';
import { demoInput } from '@/contracts/demo';
import { dispatchInput } from '@/contracts/dispatch';
import { fileInput, listDocumentsInput } from '@/contracts/document';
import { makeFolderInput } from '@/contracts/folder';
import { putTermsInput } from '@/contracts/saved-terms';
import { isZone } from '@/core/base/zone-format';
import { isLanguage } from '@/contracts/locale';
import { askInput } from '@/contracts/requests';
import { factorCode } from '@/contracts/identity';

const document = 'doc_00000000000000000000';
const token = '0'.repeat(24);
const issues = (
  schema: {
    safeParse: (value: unknown) => {
      success: boolean;
      error?: { issues: readonly { message: string }[] } | undefined;
    };
  },
  value: unknown,
): string[] => schema.safeParse(value).error?.issues.map(({ message }) => message) ?? [];

describe('a dispatch', () => {
  const terms = { rights: ['read'], from: null, until: null, prints: null };
  const input = (addresses: readonly string[]) => ({
    documents: [document],
    recipients: addresses.map((address) => ({ address })),
    terms,
    subject: 'S',
    note: '',
    watermark: [],
  });

  test('takes a thousand addresses, and says what is too many', () => {
    expect(
      dispatchInput.safeParse(
        input(Array.from({ length: 1_000 }, (_, i) => `person${String(i)}@yard.example`)),
      ).success,
    ).toBe(true);
    expect(
      issues(
        dispatchInput,
        input(Array.from({ length: 2_001 }, (_, i) => `person${String(i)}@yard.example`)),
      ),
    ).toEqual(['a dispatch reaches at most 2000 people: make it two']);
  });

  test('is mailed where nothing else was said, and goes by no other way', () => {
    expect(dispatchInput.parse(input(['a@yard.example'])).delivery).toBe('mail');
    expect(
      dispatchInput.safeParse({ ...input(['a@yard.example']), delivery: 'pigeon' }).success,
    ).toBe(false);
  });
});

describe('saved terms', () => {
  const terms = {
    id: null,
    name: 'A week',
    rights: ['read'],
    from: null,
    until: null,
    prints: null,
    days: 7,
    watermark: [],
  };
  test.each([
    [{ days: 0 }],
    [{ days: 4_000 }],
    [{ rights: [] }],
    [{ rights: ['read', 'keep'] }],
    [{ watermark: [newLayer('tiled', '{nobody}')] }],
    [{ name: ' ' }],
  ])('refuse %j', (change) => {
    expect(putTermsInput.safeParse({ ...terms, ...change }).success).toBe(false);
  });
  test('stand otherwise', () => {
    expect(putTermsInput.parse(terms)).toMatchObject({ name: 'A week', rights: ['read'], days: 7 });
  });
});

describe('filing', () => {
  test.each([
    [{ documents: [] }],
    [{ documents: ['doc_short'] }],
    [{ documents: [document], attributes: { ['x'.repeat(41)]: '' } }],
    [
      {
        documents: [document],
        attributes: Object.fromEntries(Array.from({ length: 21 }, (_, i) => [`a${String(i)}`, ''])),
      },
    ],
  ])('refuses %j', (input) => {
    expect(fileInput.safeParse(input).success).toBe(false);
  });
  test('tells “none” from “as it is”', () => {
    expect(fileInput.parse({ documents: [document], folderId: null })).toEqual({
      documents: [document],
      folderId: null,
    });
    expect(listDocumentsInput.parse({})).toEqual({ q: '' });
    expect(makeFolderInput.safeParse({ name: 'a/b', parentId: null }).success).toBe(false);
  });
});

test('a request needs a sentence, a known right, and a whole link', () => {
  const ask = { token, document, right: 'print', until: null, reason: 'For the file' };
  expect(askInput.safeParse(ask).success).toBe(true);
  for (const change of [{ reason: ' ' }, { right: 'pass-on' }, { token: 'short' }, { until: 1.5 }])
    expect(askInput.safeParse({ ...ask, ...change }).success).toBe(false);
});

test('codes are six figures however they are spaced; zones and languages are those there are', () => {
  expect(factorCode.parse(' 123 456 ')).toBe('123456');
  expect(factorCode.safeParse('12345').success).toBe(false);
  expect([
    isZone('Europe/Oslo'),
    isZone('Europe/Atlantis'),
    isLanguage('nb-NO'),
    isLanguage('no such'),
  ]).toEqual([true, false, true, false]);
});

test('the demo’s clock goes forward only, and pretends no address that is none', () => {
  expect(demoInput.safeParse({ forward: -1 }).success).toBe(false);
  expect(demoInput.safeParse({ network: 'example.org' }).success).toBe(false);
  expect(demoInput.safeParse({ network: '203.0.113.9', agent: null, forward: 1 }).success).toBe(
    true,
  );
});

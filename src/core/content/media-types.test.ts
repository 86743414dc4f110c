import { expect, test } from 'vitest';
import { extensionOf, HEAD, MEDIA_TYPES, mediaTypeOf } from '@/core/content/media-types';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

test.each([
  ['at the start', '%PDF-1.7\n'],
  ['after what a mail system put before it', `${' '.repeat(400)}%PDF-1.4`],
  ['at the end of the first kilobyte', `${' '.repeat(HEAD - 5)}%PDF-`],
])('a PDF is known by its header %s', (_where, text) => {
  expect(mediaTypeOf(bytes(text))).toBe('application/pdf');
});

test.each([
  ['nothing', ''],
  ['a word document', 'PK\u0003\u0004'],
  ['a header that comes too late', `${' '.repeat(HEAD - 4)}%PDF-`],
  ['text that speaks of it', 'Save it as PDF-1.7'],
])('%s is of no kind', (_what, text) => {
  expect(mediaTypeOf(bytes(text))).toBeNull();
});

test('every kind has an ending of its own', () => {
  const endings = MEDIA_TYPES.map(extensionOf);
  expect(new Set(endings).size).toBe(MEDIA_TYPES.length);
  for (const ending of endings) expect(ending).toMatch(/^\.[a-z0-9]+$/);
});

import { expect, test } from 'vitest';
import { extensionOf, HEAD, MEDIA_TYPES, mediaTypeOf, pagesFrom } from '@/core/content/media-types';

const bytes = (text: string): Uint8Array => Uint8Array.from(text, (letter) => letter.charCodeAt(0));
const PNG = '\u0089PNG\r\n\u001a\n\0\0\0\rIHDR';
const JPEG = '\u00ff\u00d8\u00ff\u00e0';
const ZIP = 'PK\u0003\u0004';
const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

test.each([
  ['at the start', '%PDF-1.7\n'],
  ['after what a mail system put before it', `${' '.repeat(400)}%PDF-1.4`],
  ['at the end of the first kilobyte', `${' '.repeat(HEAD - 5)}%PDF-`],
])('a PDF is known by its header %s, whatever it is called', (_where, text) => {
  expect(mediaTypeOf(bytes(text), 'a.pdf')).toBe('application/pdf');
  expect(mediaTypeOf(bytes(text), 'a')).toBe('application/pdf');
});

test.each([
  [PNG, 'plan.png', 'image/png'],
  [JPEG, 'quay.JPG', 'image/jpeg'],
  ['II*\0', 'scan.tif', 'image/tiff'],
  ['RIFF\u0001\0\0\0WEBPVP8 ', 'a.webp', 'image/webp'],
  ['<?xml version="1.0"?><svg xmlns="x">', 'mark.svg', 'image/svg+xml'],
  ['Dear all', 'note.txt', 'text/plain'],
  ['# Notes \u00e6', 'notes.md', 'text/markdown'],
  ['\u00ff\u00fea\0,\0b\0', 'weights.csv', 'text/csv'],
  [ZIP, 'spec.docx', WORD],
  [ZIP, 'spec.zip', 'application/octet-stream'],
  ['anything', 'model.dwg', 'application/octet-stream'],
])('%j called %s is %s', (head, name, kind) => {
  expect(mediaTypeOf(bytes(head), name)).toBe(kind);
});

test('a picture may be called another kind of picture: what it holds counts', () => {
  expect(mediaTypeOf(bytes(JPEG), 'quay.png')).toBe('image/jpeg');
});

test.each([
  ['nothing', '', 'a.pdf'],
  ['a picture', PNG, 'a.pdf'],
  ['a header that comes too late', `${' '.repeat(HEAD - 4)}%PDF-`, 'a.pdf'],
  ['text', 'Save it as PDF-1.7', 'a.docx'],
  ['a PDF', '%PDF-1.7', 'a.xlsx'],
  ['a program', 'MZ\u0090\0\u0003\0', 'a.txt'],
  ['an archive', ZIP, 'a.png'],
])('%s is not taken for what its name says: %j called %s', (_what, head, name) => {
  expect(mediaTypeOf(bytes(head), name)).toBeNull();
});

test('every kind has an ending of its own, and a file keeps the one it came with', () => {
  const named = MEDIA_TYPES.filter((each) => each !== 'application/octet-stream');
  const endings = named.map((each) => extensionOf(each));
  expect(new Set(endings).size).toBe(named.length);
  for (const ending of endings) expect(ending).toMatch(/^\.[a-z0-9]+$/);
  expect(extensionOf('image/jpeg', 'Quay.JPEG')).toBe('.JPEG');
  expect(extensionOf('image/jpeg', 'Quay.png')).toBe('.jpg');
  expect(extensionOf('application/octet-stream', 'hull.dwg')).toBe('.dwg');
  expect(extensionOf('application/octet-stream', 'hull')).toBe('');
});

test('what has no pages is only kept', () => {
  expect(MEDIA_TYPES.filter((each) => pagesFrom(each) === 'none')).toEqual([
    'application/octet-stream',
  ]);
});

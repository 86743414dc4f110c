import { newLayer } from '@/core/watermark/layers';
import { shapeLayers } from '@/core/watermark/layout';
import { ownScriptsOnly } from '@/core/watermark/shape';
import { deflateSync } from 'node:zlib';
import { PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib';
import { describe, expect, test } from 'vitest';
import { inflationOf } from '@/server/rendering/inflation';
import { keepMarked } from '@/server/rendering/keep-marked';
import { picturesToPdf } from '@/core/pages/picture-pdf';

const MARK = await shapeLayers([newLayer('tiled', 'MARK')], ownScriptsOnly);

const MOST = 1 << 20;
const bytesOf = (content: Buffer) => ({
  size: content.length,
  read: (at: number, length: number) => content.subarray(at, Math.min(content.length, at + length)),
});
const stream = (dictionary: string, packed: Buffer) =>
  Buffer.concat([
    Buffer.from(`%PDF-1.7\n5 0 obj\n<< ${dictionary} >>\nstream\n`),
    packed,
    Buffer.from('\nendstream\nendobj\n'),
  ]);
const large = deflateSync(Buffer.alloc(MOST + 1));
const small = deflateSync(Buffer.alloc(1000));

describe('what object streams unpack to', () => {
  test.each([
    ['is within bounds', '/Type /ObjStm /Filter /FlateDecode', small, 'within'],
    ['is beyond them', '/Type /ObjStm /Filter /FlateDecode', large, 'beyond'],
    ['in a cross-reference stream', '/Filter/FlateDecode/Type/XRef', large, 'beyond'],
    [
      'under names written by number',
      '/#54ype /Obj#53tm /#46ilter /FlateDecod#65',
      large,
      'beyond',
    ],
    [
      'deflated twice',
      '/Type /ObjStm /Filter [ /FlateDecode /FlateDecode ]',
      deflateSync(large),
      'beyond',
    ],
    ['packed otherwise', '/Type /ObjStm /Filter [ /LZWDecode ]', small, 'unknown'],
    ['said elsewhere', '/Type /ObjStm /Filter 7 0 R', small, 'unknown'],
    ['of other streams is not counted', '/Type /XObject /Filter /FlateDecode', large, 'within'],
  ])('%s', async (_what, dictionary, packed, expected) => {
    expect(await inflationOf(bytesOf(stream(dictionary, packed)), MOST)).toBe(expected);
  });

  test('adds up over many, wherever they stand in the file', async () => {
    const half = stream(
      '/Type /ObjStm /Filter /FlateDecode',
      deflateSync(Buffer.alloc(MOST / 2 + 1)),
    );
    expect(
      await inflationOf(bytesOf(Buffer.concat([half, Buffer.alloc(5 << 20), half])), MOST),
    ).toBe('beyond');
    // Across the edge of what is looked at together.
    expect(
      await inflationOf(
        bytesOf(
          Buffer.concat([
            Buffer.alloc((4 << 20) - 30),
            stream('/Type /ObjStm /Filter /FlateDecode', large),
          ]),
        ),
        MOST,
      ),
    ).toBe('beyond');
  });

  test('a file that unpacks too far is handed on as it is, not rewritten', async () => {
    const bomb = new Uint8Array(
      stream('/Type /ObjStm /Filter /FlateDecode', deflateSync(Buffer.alloc(200 << 20))),
    );
    expect(await keepMarked(bomb, MARK)).toEqual({ bytes: bomb, marked: false });
  });
});

test('a kept copy runs nothing and leads nowhere', async () => {
  const pdf = await PDFDocument.create();
  const page = pdf.addPage();
  const action = (kind: string, more = {}) =>
    pdf.context.obj({
      S: kind,
      JS: PDFString.of('app.alert(1)'),
      URI: PDFString.of('https://elsewhere.example'),
      ...more,
    });
  pdf.catalog.set(PDFName.of('OpenAction'), action('JavaScript'));
  pdf.catalog.set(PDFName.of('AA'), pdf.context.obj({ WC: action('JavaScript') }));
  pdf.catalog.set(
    PDFName.of('Names'),
    pdf.context.obj({ JavaScript: { Names: [PDFString.of('a'), action('JavaScript')] } }),
  );
  page.node.set(PDFName.of('AA'), pdf.context.obj({ O: action('Launch') }));
  const link = pdf.context.register(
    pdf.context.obj({
      Type: 'Annot',
      Subtype: 'Link',
      Rect: [0, 0, 9, 9],
      A: pdf.context.register(action('URI')),
    }),
  );
  const inside = pdf.context.obj({
    Type: 'Annot',
    Subtype: 'Link',
    Rect: [0, 0, 9, 9],
    A: { S: 'GoTo', D: [0] },
  });
  page.node.set(PDFName.of('Annots'), pdf.context.obj([link, inside]));
  const { bytes, marked } = await keepMarked(await pdf.save(), MARK);
  expect(marked).toBe(true);
  const after = await PDFDocument.load(bytes);
  const objects = after.context
    .enumerateIndirectObjects()
    .map(([, object]) => String(object))
    .join('\n');
  expect(objects).not.toMatch(/OpenAction|AA|JavaScript|Launch|URI|alert|elsewhere/);
  expect(objects).toContain('/GoTo');
});

test('pictures become a PDF while they come, with its title in any script', async () => {
  const jpeg = Buffer.from(
    '/9j/4AAQSkZJRgABAQAAAQABAAD/2wBDAAMCAgICAgMCAgIDAwMDBAYEBAQEBAgGBgUGCQgKCgkICQkKDA8MCgsOCwkJ' +
      'DRENDg8QEBEQCgwSExIQEw8QEBD/yQALCAABAAEBAREA/8wABgAQEAX/2gAIAQEAAD8A0s8g/9k=',
    'base64',
  );
  const pieces: Uint8Array[] = [];
  const pages = (async function* () {
    for (let i = 0; i < 3; i++)
      yield await Promise.resolve({
        bytes: new Uint8Array(jpeg),
        type: 'image/jpeg' as const,
        width: 1,
        height: 1,
        size: { width: 595.276, height: 842 },
      });
  })();
  for await (const piece of picturesToPdf('Überblick 図面', pages)) pieces.push(piece);
  const pdf = await PDFDocument.load(Buffer.concat(pieces));
  expect(pdf.getTitle()).toBe('Überblick 図面');
  expect(pdf.getPages().map((page) => Math.round(page.getWidth()))).toEqual([595, 595, 595]);
});

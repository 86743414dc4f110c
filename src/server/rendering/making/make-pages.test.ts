import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import ExcelJS from 'exceljs';
import JSZip from 'jszip';
import sharp from 'sharp';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { MediaType } from '@/core/content/media-types';
import { makePages } from '@/server/rendering/making/make-pages';
import { wordFile, wordParagraph, wordTable } from '../../../../demo/word-file';
import {
  slideFile,
  slidePicture,
  slideTable,
  slideText,
} from '../../../../tests/support/slide-file';

const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
const EXCEL = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
const POWERPOINT = 'application/vnd.openxmlformats-officedocument.presentationml.presentation';
const DRAWING = 'http://schemas.openxmlformats.org/drawingml/2006';
const RELATION = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

let folder = '';
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'embargo-made-'));
});
afterAll(() => {
  rmSync(folder, { recursive: true });
});

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

/** What other programs find in the pages that were made. */
async function made(kind: MediaType, file: Uint8Array) {
  const pdf = path.join(folder, 'made.pdf');
  writeFileSync(pdf, await makePages(kind, file));
  execFileSync('qpdf', ['--check', pdf]);
  const info = execFileSync('pdfinfo', ['-l', '-1', pdf], { encoding: 'utf8' });
  const [, width, height] = /Page\s+1 size:\s+([\d.]+) x ([\d.]+)/.exec(info) ?? [];
  return {
    pages: Number(/Pages:\s+(\d+)/.exec(info)?.[1]),
    size: [Number(width), Number(height)],
    text: execFileSync('pdftotext', ['-layout', pdf, '-'], { encoding: 'utf8' }),
    fonts: execFileSync('pdffonts', [pdf], { encoding: 'utf8' }),
  };
}

async function book(fill: (book: ExcelJS.Workbook) => void): Promise<Uint8Array> {
  const written = new ExcelJS.Workbook();
  fill(written);
  return new Uint8Array(await written.xlsx.writeBuffer());
}

describe('text', () => {
  test('stands as it was written, line by line, in whatever letters', async () => {
    const { text, pages, fonts } = await made(
      'text/plain',
      bytes('Log\n\n\tindented\n08:00  wind 12 kn\nΚαλημέρα Привет 日本語 Zażółć\n🙂'),
    );
    expect(pages).toBe(1);
    expect(text).toMatch(/^08:00 +wind 12 kn$/m);
    expect(text).toMatch(/^ {6,}indented$/m);
    for (const word of ['Καλημέρα', 'Привет', '日本語', 'Zażółć']) expect(text).toContain(word);
    // Fonts go with it: no viewer has to have them.
    expect(
      fonts
        .split('\n')
        .slice(2, -1)
        .every((line) => line.includes(' yes yes yes ')),
    ).toBe(true);
  });

  test.each([
    ['UTF-16', Uint8Array.from([0xff, 0xfe, ...Buffer.from('Ærø', 'utf16le')])],
    ['the letters of older systems', Uint8Array.from([0xc6, 0x72, 0xf8])],
    ['UTF-8 with its mark', bytes('\ufeffÆrø')],
  ])('is read where it is in %s', async (_how, file) => {
    expect((await made('text/plain', file)).text.trim()).toBe('Ærø');
  });

  test('of nothing but blanks is one page', async () => {
    expect((await made('text/plain', bytes('\n\n'))).pages).toBe(1);
  });

  test('in Markdown has headings, lists, tables and code; HTML in it is shown, not used', async () => {
    const { text } = await made(
      'text/markdown',
      bytes(
        '# Berth\n\nA *word* and **two**.\n\n3. third\n4. fourth\n\n| Item | t |\n|--|--|\n| Rail | 12 |\n\n' +
          '```\n  x = 1\n```\n\n<script>alert(1)</script>\n\n![the plan](https://yard.example/plan.png)\n',
      ),
    );
    expect(text).toContain('Berth');
    expect(text).toContain('A word and two.');
    expect(text).toMatch(/4\.\s+fourth/);
    expect(text).toMatch(/Rail\s+12/);
    expect(text).toContain('  x = 1');
    expect(text).toContain('<script>alert(1)</script>');
    expect(text).toContain('[the plan]');
  });
});

describe('a Word file', () => {
  test('has its headings as outline, its tables, and all its words', async () => {
    const file = await wordFile([
      wordParagraph('Specification', 'Heading1'),
      wordParagraph('Rails are measured & noted <hourly>.'),
      wordTable([
        ['Item', 'Weight'],
        ['Mast', '3.1 t'],
      ]),
    ]);
    const { text } = await made(WORD, file);
    expect(text).toContain('Specification');
    expect(text).toContain('Rails are measured & noted <hourly>.');
    expect(text).toMatch(/Mast\s+3\.1 t/);
    expect(Buffer.from(await makePages(WORD, file)).toString('latin1')).toContain('/Outlines');
  });

  test('fetches nothing that lies elsewhere, and runs nothing', async () => {
    let asked = 0;
    const server = createServer((_request, response) => {
      asked++;
      response.end();
    }).listen(0);
    const url = `http://localhost:${String((server.address() as AddressInfo).port)}/plan.png`;
    const file = await wordFile(
      [
        wordParagraph('Before'),
        '<w:p><w:r><w:drawing>' +
          `<wp:inline xmlns:wp="${DRAWING}/wordprocessingDrawing">` +
          `<a:graphic xmlns:a="${DRAWING}/main"><a:graphicData>` +
          `<pic:pic xmlns:pic="${DRAWING}/picture"><pic:blipFill><a:blip r:link="rId9"/>` +
          '</pic:blipFill></pic:pic></a:graphicData></a:graphic></wp:inline></w:drawing></w:r></w:p>',
        wordParagraph('After'),
      ],
      {
        'word/_rels/document.xml.rels':
          '<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">' +
          `<Relationship Id="rId9" Type="${RELATION}/image" Target="${url}" TargetMode="External"/>` +
          '</Relationships>',
        'word/vbaProject.bin': bytes('a macro'),
      },
    );
    const { text } = await made(WORD, file);
    server.close();
    expect(text).toMatch(/Before[^]*After/);
    expect(asked).toBe(0);
  });

  test.each([
    ['no archive', bytes('PK\u0003\u0004 and nothing more')],
    ['an archive of something else', null],
  ])('that is %s is refused in words', async (_what, file) => {
    const other = new JSZip();
    other.file('readme.txt', 'nothing of that kind');
    const content = file ?? (await other.generateAsync({ type: 'uint8array' }));
    await expect(makePages(WORD, content)).rejects.toMatchObject({ code: 'FILE_DAMAGED' });
  });
});

describe('an archive that unpacks too far', () => {
  /** An archive of 20 MB of blanks, whose directory states this for its size. */
  const stating = async (unpacked: number): Promise<Uint8Array> => {
    const zip = new JSZip();
    zip.file('word/document.xml', Buffer.alloc(20 << 20, ' '));
    const file = await zip.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
    const view = new DataView(file.buffer);
    for (let at = 0; at < file.length - 4; at++)
      if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, unpacked, true);
    return file;
  };

  test.each([
    ['by what its directory says', 300 << 20],
    ['where its directory lies', 1_000],
  ])('is stopped %s', async (_how, unpacked) => {
    const file = await stating(unpacked);
    for (const kind of [WORD, EXCEL] as const)
      await expect(makePages(kind, file)).rejects.toMatchObject({ code: 'FILE_UNPACKS_TOO_FAR' });
  });
});

describe('tables', () => {
  test('of values have the heading row on every page, and as many pages as they need', async () => {
    const rows = Array.from({ length: 300 }, (_, i) => `Frame ${String(i)},${String(i * 1.5)}`);
    const { pages, text } = await made('text/csv', bytes(`Item,Weight\n${rows.join('\n')}`));
    expect(pages).toBeGreaterThan(5);
    expect(text.match(/Item\s+Weight/g)).toHaveLength(pages);
    expect(text).toMatch(/Frame 299\s+448\.5/);
  });

  test('apart by semicolons, with quotes and lines within, are read as they are meant', async () => {
    const { text } = await made('text/csv', bytes('Item;Note\nMast;"one\ntwo; three"\n'));
    expect(text).toMatch(/Mast\s+one/);
    expect(text).toContain('two; three');
  });

  test('stay beside one another, however wide', async () => {
    const columns = Array.from({ length: 60 }, (_, i) => `Column ${String(i)}`);
    const { pages, size } = await made('text/csv', bytes(columns.join(',')));
    expect(pages).toBe(1);
    expect(size[0]).toBeGreaterThan(2_000);
  });

  test('of Excel show values as they are formatted, sheet by sheet, and nothing that is hidden', async () => {
    const file = await book((workbook) => {
      const sheet = workbook.addWorksheet('Weights', { views: [{ state: 'frozen', ySplit: 1 }] });
      sheet.addRow(['Item', 'Share', 'Weight', 'Day', 'Secret']);
      sheet.addRow(['Mast', 0.125, 1234.5, new Date(Date.UTC(2026, 11, 17)), 'hidden column']);
      sheet.getCell('B2').numFmt = '0.0%';
      sheet.getCell('C2').numFmt = '#,##0.00';
      sheet.getCell('D2').numFmt = 'dd/mm/yyyy';
      sheet.getCell('A3').value = { formula: 'A2', result: 'Sum of all' };
      sheet.getColumn(5).hidden = true;
      sheet.addRow(['hidden row']).hidden = true;
      workbook.addWorksheet('Second').addRow(['other sheet']);
      workbook.addWorksheet('Third', { state: 'hidden' }).addRow(['hidden sheet']);
    });
    const { text, pages } = await made(EXCEL, file);
    expect(pages).toBe(2);
    expect(text).toMatch(/Mast\s+12\.5%\s+1,234\.50\s+17\/12\/2026/);
    expect(text).toContain('Sum of all');
    expect(text).toContain('Second');
    expect(text).not.toMatch(/hidden|Secret/);
  });

  test('of no rows at all are one page', async () => {
    expect((await made(EXCEL, await book((each) => each.addWorksheet('Empty')))).pages).toBe(1);
  });

  test('of more than 100,000 rows are refused in words', async () => {
    const many = bytes('a\n'.repeat(100_001));
    await expect(makePages('text/csv', many)).rejects.toMatchObject({ code: 'FILE_TOO_LONG' });
  });
});

describe('slides', () => {
  test('show texts, tables and pictures where they stand, in their order, and none that is hidden', async () => {
    const red = await sharp({
      create: { width: 40, height: 40, channels: 3, background: '#d01010' },
    })
      .png()
      .toBuffer();
    const file = await slideFile(
      [
        { items: [slideText('Berth study', 'title'), slideText('As drawn', [60, 200, 300, 100])] },
        { items: [slideText('Not to be seen', 'title')], isHidden: true },
        { items: [slideTable('Rail', '12.5 t'), slidePicture(600, 100, 200, 200)] },
      ],
      red,
    );
    const { pages, size, text } = await made(POWERPOINT, file);
    expect(pages).toBe(2);
    expect(size).toEqual([960, 540]);
    expect(text).toMatch(/Berth study[^]*As drawn[^]*Rail\s+12\.5 t/);
    expect(text).not.toMatch(/Not to be seen|Click here/);
    const drawn = ['-r', '72', '-f', '2', '-l', '2', '-png', '-singlefile', 'made.pdf', 'slide'];
    execFileSync('pdftoppm', drawn, { cwd: folder });
    const inside = { left: 620, top: 120, width: 160, height: 160 };
    const part = await sharp(path.join(folder, 'slide.png')).extract(inside).toBuffer();
    const { dominant } = await sharp(part).stats();
    expect(dominant.r).toBeGreaterThan(180);
    expect(dominant.g).toBeLessThan(60);
  });

  test('fetch no picture that lies elsewhere', async () => {
    const file = await slideFile(
      [{ items: [slideText('Alone', 'title'), slidePicture(0, 0, 100, 100)] }],
      'http://localhost:9/plan.png',
    );
    expect((await made(POWERPOINT, file)).text).toContain('Alone');
  });

  test('of no presentation are refused in words', async () => {
    const file = await wordFile([wordParagraph('A text')]);
    await expect(makePages(POWERPOINT, file)).rejects.toMatchObject({ code: 'FILE_DAMAGED' });
  });
});

describe('pictures', () => {
  const square = (width: number, height: number) =>
    sharp({ create: { width, height, channels: 3, background: '#3a6ea5' } });

  test.each(['png', 'jpeg', 'webp', 'tiff'] as const)(
    '%s is a page of its shape',
    async (format) => {
      const { pages, size } = await made(
        `image/${format}`,
        await square(800, 400).toFormat(format).toBuffer(),
      );
      expect(pages).toBe(1);
      expect((size[0] ?? 0) / (size[1] ?? 1)).toBeCloseTo(2, 1);
    },
  );

  test('stands upright as a camera noted it', async () => {
    const turned = await square(800, 400).withMetadata({ orientation: 6 }).jpeg().toBuffer();
    const { size } = await made('image/jpeg', turned);
    // As large as it was taken, at 150 dots an inch.
    expect(size).toEqual([192, 384]);
  });

  test('a drawing is drawn; what it names elsewhere is not fetched, what it would run is not run', async () => {
    writeFileSync(path.join(folder, 'secret.png'), await square(10, 10).png().toBuffer());
    const svg =
      '<svg xmlns="http://www.w3.org/2000/svg" xmlns:xlink="http://www.w3.org/1999/xlink" width="200" height="100">' +
      '<script>throw new Error()</script><rect width="50" height="50" fill="red"/>' +
      `<image xlink:href="file://${folder}/secret.png" width="200" height="100"/></svg>`;
    const pdf = await makePages('image/svg+xml', bytes(svg));
    writeFileSync(path.join(folder, 'drawn.pdf'), pdf);
    execFileSync('pdftoppm', ['-r', '72', '-png', '-singlefile', 'drawn.pdf', 'drawn'], {
      cwd: folder,
    });
    const { dominant } = await sharp(path.join(folder, 'drawn.png')).stats();
    // The white sheet, not the blue of the file beside it.
    expect(Math.min(dominant.r, dominant.g, dominant.b)).toBeGreaterThan(230);
  });

  test('of 30,000 px each way are refused before they are unpacked', async () => {
    const head = await square(10, 10).png().toBuffer();
    head.writeUInt32BE(30_000, 16);
    head.writeUInt32BE(30_000, 20);
    await expect(makePages('image/png', head)).rejects.toMatchObject({
      code: expect.stringMatching(/PICTURE_TOO_LARGE|FILE_DAMAGED/) as string,
    });
  });

  test('that are cut off are refused in words', async () => {
    const whole = await square(800, 800).png().toBuffer();
    await expect(makePages('image/png', whole.subarray(0, 60))).rejects.toMatchObject({
      code: 'FILE_DAMAGED',
    });
  });
});

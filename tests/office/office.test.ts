// LibreOffice, as it is shut in here. Run by `npm run test:office`, since not every machine has it.
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { makePages } from '@/server/rendering/making/make-pages';
import { confined, whyNotConfined } from '@/server/rendering/office/confine';
import { officeOf } from '@/server/rendering/office/office-of';
import { officePages, type Office } from '@/server/rendering/office/office-pages';
import { wordFile, wordParagraph } from '../../demo/word-file';
import { slideFile, slideText } from '../support/slide-file';

const WORD = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';
const POWERPOINT = 'application/vnd.openxmlformats-officedocument.presentationml.presentation';
const RELATIONS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const DRAWING = 'http://schemas.openxmlformats.org/drawingml/2006';
const PROGRAM = process.env['OFFICE'] ?? 'soffice';

let folder = '';
let office: Office;
beforeAll(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'embargo-secret-'));
  writeFileSync(path.join(folder, 'master.key'), 'a secret');
  office = { program: PROGRAM, scratch: '/dev/shm', hidden: [folder] };
});
afterAll(() => {
  rmSync(folder, { recursive: true });
});

const leftovers = (): string[] =>
  readdirSync('/dev/shm').filter((name) => name.startsWith('embargo-office-'));

function told(pdf: Uint8Array) {
  const file = path.join(folder, 'made.pdf');
  writeFileSync(file, pdf);
  return {
    info: execFileSync('pdfinfo', [file], { encoding: 'utf8' }),
    text: execFileSync('pdftotext', [file, '-'], { encoding: 'utf8' }),
    pictures:
      execFileSync('pdfimages', ['-list', file], { encoding: 'utf8' }).trim().split('\n').length -
      2,
  };
}

function inside(...command: readonly string[]): string {
  const [program = '', ...args] = command;
  const shut = confined([folder], program, args);
  return execFileSync(shut.command, [...shut.args], { encoding: 'utf8', stdio: 'pipe' }).trim();
}

test('pages of a Word file are made by it', async () => {
  const file = await wordFile([wordParagraph('Berth study'), wordParagraph('East quay')]);
  const { info, text } = told(await makePages(WORD, file, office));
  expect(info).toMatch(/LibreOffice/);
  expect(text).toMatch(/Berth study\s+East quay/);
  expect(leftovers()).toEqual([]);
});

test('pages of slides are made by it, one each', async () => {
  const slide = (words: string) => ({ items: [slideText(words, [60, 200, 300, 100])] });
  const file = await slideFile([slide('First'), slide('Second')], '');
  const { info, text } = told(await makePages(POWERPOINT, file, office));
  expect(info).toMatch(/Pages:\s+2/);
  expect(text).toMatch(/First[^]*Second/);
});

test('it reaches no network and no file beside its own, whatever a file links to', async () => {
  let asked = 0;
  const server = createServer((_request, response) => {
    asked++;
    response.end();
  });
  await new Promise<void>((resolve) => {
    server.listen(0, '127.0.0.1', resolve);
  });
  const port = String((server.address() as AddressInfo).port);
  const picture = path.join(folder, 'master.png');
  const red = { width: 20, height: 20, channels: 3, background: 'red' } as const;
  await sharp({ create: red }).png().toFile(picture);
  for (const target of [`http://127.0.0.1:${port}/seen.png`, `file://${picture}`]) {
    const linked =
      '<w:p><w:r><w:drawing><wp:inline ' +
      `xmlns:wp="${DRAWING}/wordprocessingDrawing">` +
      '<wp:extent cx="1270000" cy="1270000"/><wp:docPr id="1" name="p"/>' +
      '<a:graphic xmlns:a="http://schemas.openxmlformats.org/drawingml/2006/main">' +
      '<a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/picture">' +
      '<pic:pic xmlns:pic="http://schemas.openxmlformats.org/drawingml/2006/picture">' +
      '<pic:nvPicPr><pic:cNvPr id="1" name="p"/><pic:cNvPicPr/></pic:nvPicPr>' +
      `<pic:blipFill><a:blip r:link="rId9" xmlns:r="${RELATIONS}"/>` +
      '<a:stretch><a:fillRect/></a:stretch></pic:blipFill>' +
      '<pic:spPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="1270000" cy="1270000"/></a:xfrm>' +
      '<a:prstGeom prst="rect"/></pic:spPr></pic:pic></a:graphicData></a:graphic>' +
      '</wp:inline></w:drawing></w:r></w:p>';
    const relations =
      '<?xml version="1.0" encoding="UTF-8"?><Relationships ' +
      'xmlns="http://schemas.openxmlformats.org/package/2006/relationships">' +
      `<Relationship Id="rId9" Type="${RELATIONS}/image" Target="${target}" TargetMode="External"/>` +
      '</Relationships>';
    const file = await wordFile([wordParagraph('Before'), linked], {
      'word/_rels/document.xml.rels': relations,
    });
    const { text, pictures } = told(await officePages(office, WORD, file));
    expect(text).toContain('Before');
    expect(pictures).toBe(0);
  }
  expect(asked).toBe(0);
  server.close();
});

test('what it runs in is empty where it must be, without a network, and bounded', () => {
  expect(inside('ls', folder)).toBe('');
  expect(inside('sh', '-c', 'cat /proc/net/dev').split('\n').slice(2).join()).toMatch(
    /^\s*lo:[^,]*$/,
  );
  expect(inside('sh', '-c', 'ulimit -v')).toBe(String(4 * 2 ** 20));
  expect(inside('sh', '-c', 'ulimit -t')).toBe('45');
  expect(() => inside('sh', '-c', 'head -c 600M /dev/zero > /dev/shm/embargo-too-much')).toThrow();
  rmSync('/dev/shm/embargo-too-much', { force: true });
});

test('a file it makes nothing of is left to what is built in, which says what is wrong', async () => {
  const damaged = new TextEncoder().encode('PK\u0003\u0004 and nothing more');
  await expect(makePages(WORD, damaged, office)).rejects.toMatchObject({ code: 'FILE_DAMAGED' });
  const file = await wordFile([wordParagraph('Berth study')]);
  const gone = { ...office, program: 'no-such-program' };
  const { info, text } = told(await makePages(WORD, file, gone));
  expect(info).not.toMatch(/LibreOffice/);
  expect(text).toContain('Berth study');
  expect(leftovers()).toEqual([]);
});

test('it is used only where it is switched on and can be shut in', () => {
  const keys = path.join(folder, 'keys');
  mkdirSync(keys);
  const config = { dataDir: folder, masterKeyFile: path.join(keys, 'master.key') };
  const said: string[] = [];
  const health = { raise: (code: string, detail = '') => said.push(`${code}: ${detail}`) };
  expect(officeOf({ ...config, office: null }, health)).toBeNull();
  expect(officeOf({ ...config, office: 'no-such-program' }, health)).toBeNull();
  expect(said).toEqual([expect.stringContaining('office-unusable')]);
  const hidden = officeOf({ ...config, office: PROGRAM }, health)?.hidden ?? [];
  expect(hidden).toEqual(expect.arrayContaining([folder, keys]));
  expect(hidden.indexOf(keys)).toBeLessThan(hidden.indexOf(folder));
  expect(whyNotConfined(['/no/such/folder'], PROGRAM)).not.toBeNull();
});

test('forty pages take seconds', async () => {
  const words = 'The quay is two hundred metres long and has nine bollards. '.repeat(8);
  const file = await wordFile(Array.from({ length: 260 }, () => wordParagraph(words)));
  const began = performance.now();
  const { info } = told(await makePages(WORD, file, office));
  const seconds = (performance.now() - began) / 1_000;
  console.log(`${/Pages:\s+(\d+)/.exec(info)?.[1] ?? '?'} pages in ${seconds.toFixed(1)} s`);
  expect(Number(/Pages:\s+(\d+)/.exec(info)?.[1])).toBeGreaterThan(30);
});

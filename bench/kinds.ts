// How long pages take to be made of files of other kinds, and whether readers notice meanwhile.
import { randomBytes } from 'node:crypto';
import { writeFile } from 'node:fs/promises';
import path from 'node:path';
import ExcelJS from 'exceljs';
import { sealedSize } from '@/core/age/chunks';
import { sealStream } from '@/core/age/stream';
import type { MediaType } from '@/core/content/media-types';
import { DEFAULT_WATERMARK } from '@/core/watermark/layers';
import { createRenderPool, type Renderer } from '@/server/rendering/render-pool';
import type { SealedSource } from '@/server/rendering/render-task';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { drawPaper } from '../demo/drawings';
import { wordFile, wordParagraph, wordTable } from '../demo/word-file';
import { say, seconds } from './measure';

const OPEN_XML = 'application/vnd.openxmlformats-officedocument';
const WORD = `${OPEN_XML}.wordprocessingml.document`;
const EXCEL = `${OPEN_XML}.spreadsheetml.sheet`;

async function* once(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield await Promise.resolve(bytes);
}

async function sealed(folder: string, name: string, bytes: Uint8Array): Promise<SealedSource> {
  const key = new Uint8Array(randomBytes(32));
  const file = path.join(folder, `${name}.age`);
  const pieces: Uint8Array[] = [];
  for await (const piece of sealStream(nodeChunkCipher(key), once(bytes))) pieces.push(piece);
  await writeFile(file, Buffer.concat(pieces));
  const place = { in: 'file' as const, path: file };
  return { place, start: 0, sealedBytes: sealedSize(bytes.length), key };
}

/** Some 40 pages of headings, paragraphs and tables. */
function specification(): Promise<Uint8Array> {
  const sentence =
    'The crane rail is measured at three points along the berth, and each is noted. ';
  const body: string[] = [];
  for (let part = 1; part <= 30; part++) {
    body.push(wordParagraph(`${String(part)} Part of the berth`, 'Heading2'));
    for (let i = 0; i < 9; i++) body.push(wordParagraph(sentence.repeat(6)));
    body.push(wordTable(Array.from({ length: 4 }, (_, i) => [`Item ${String(i)}`, '12.5', 't'])));
  }
  return wordFile(body);
}

async function weights(): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Weights', { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.addRow(['Item', 'Section', 'Length', 'Weight', 'Day', 'Seen by', 'Share', 'Remark']);
  for (let i = 0; i < 10_000; i++)
    sheet.addRow([
      `Frame ${String(i)}`,
      i % 40,
      i * 1.5,
      12.5,
      new Date(0),
      'Ida',
      0.5,
      'as drawn',
    ]);
  return new Uint8Array(await book.xlsx.writeBuffer());
}

/** What a reader waits for a page while something else goes on. */
async function longestWait(
  pool: Renderer,
  source: SealedSource,
  meanwhile: Promise<unknown>,
): Promise<number> {
  const state = { isOver: false };
  void meanwhile.finally(() => {
    state.isOver = true;
  });
  let longest = 0;
  for (let page = 1; !state.isOver; page = (page % 8) + 1) {
    const asked = {
      kind: 'page',
      source,
      page,
      width: 1_000,
      watermark: DEFAULT_WATERMARK,
    } as const;
    longest = Math.max(longest, await seconds(() => pool.run(asked, { who: 'reader' })));
  }
  return longest;
}

/** Pages of a Word file and of a sheet, with somebody who reads something else meanwhile. */
export async function making(folder: string): Promise<void> {
  const pool = createRenderPool('build/workers', 2);
  const paper = { reference: 'TQ-1', title: 'Specification', kind: 'text', pages: 8 } as const;
  const read = await sealed(folder, 'read', await drawPaper(paper));
  const files: readonly [string, MediaType, Uint8Array][] = [
    ['pages of a Word file of 40 pages', WORD, await specification()],
    ['pages of a sheet of 10,000 rows', EXCEL, await weights()],
  ];
  for (const [what, mediaType, bytes] of files) {
    const source = await sealed(folder, mediaType.slice(-5), bytes);
    const make = () => pool.run({ kind: 'make', source, mediaType }, { who: 'sender' });
    const began = performance.now();
    const made = make();
    const longest = await longestWait(pool, read, made);
    await made;
    const took = (performance.now() - began) / 1_000;
    const alone = await seconds(make);
    say(what, `${alone.toFixed(1)} s, ${took.toFixed(1)} s the first time`, 'under 5 s');
    say(
      '  a page of another document meanwhile',
      `at most ${(longest * 1_000).toFixed(0)} ms`,
      'at most 1,000 ms',
    );
  }
  await pool.close();
}

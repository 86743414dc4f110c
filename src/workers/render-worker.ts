import { BroadcastChannel, workerData } from 'node:worker_threads';
import Piscina, { transferableSymbol, valueSymbol } from 'piscina';
import sharp from 'sharp';
import { AgeError } from '@/core/age/errors';
import { readerOf, type PlainReader } from '@/core/age/random-access';
import type { Picture } from '@/core/watermark/burn';
import { wholePage } from '@/core/watermark/layout';
import { ContentError } from '@/core/pages/errors';
import { glyphsToCarry } from '@/core/watermark/carried-glyphs';
import { createMarker } from '@/core/watermark/marker';
import { asDrawn, asJpeg, markedPicture, withFewColours } from '@/server/rendering/marked-picture';
import { clearRows } from '@/server/rendering/png';
import { createScriptFonts } from '@/server/rendering/script-fonts';
import { PRINT_WIDTH } from '@/core/pages/picture-pdf';
import type { PageSource, PartOfPage } from '@/core/pages/page-source';
import { pdfEngine, type PdfEngine } from '@/server/rendering/pdf-engine';
import {
  FORGET,
  type Drawn,
  type PageAsked,
  type Found,
  type RenderJob,
  type RenderReply,
  type RenderResults,
  type RenderTask,
  type SealedSource,
  type ThreadData,
} from '@/server/rendering/render-task';
import { nameOfPlace, openBlob } from '@/server/storage/open-blob';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';
import { giveWay } from '@/workers/give-way';

/** Documents a worker keeps open between tasks. */
const KEPT_OPEN = 3;
const MOST_PAGES = 20_000;

sharp.concurrency(1);
sharp.cache(false);

type OpenDocument = { readonly pages: PageSource; readonly closeFile: () => void };

/** What the pool says to a thread of its own. */
function threadData(): ThreadData {
  return Piscina.workerData as ThreadData;
}

let engine: PdfEngine | null = null;

/** The engine of this thread, made when it is first needed. */
function pdf(): PdfEngine {
  return (engine ??= pdfEngine(threadData().pdfium));
}
const kept = new Map<string, OpenDocument>();
const scripts = createScriptFonts();
const marker = createMarker(scripts);

/** Reads the plain bytes of a stored file, until it is closed. */
function plainReader(source: SealedSource): {
  readonly reader: PlainReader;
  readonly close: () => void;
} {
  const blob = openBlob(source.place);
  const read = (offset: number, length: number): Uint8Array => {
    const bytes = blob.read({ offset: source.start + offset, length });
    if (bytes.length !== length) throw new AgeError('DAMAGED', 'short read');
    return bytes;
  };
  return {
    reader: readerOf(nodeChunkCipher(source.key), source.sealedBytes, read),
    close: blob.close,
  };
}

/** Uses a stored file's plain bytes, and closes it. */
async function withPlain<T>(
  source: SealedSource,
  use: (reader: PlainReader) => Promise<T>,
): Promise<T> {
  const { reader, close } = plainReader(source);
  try {
    return await use(reader);
  } finally {
    close();
  }
}

async function open(source: SealedSource): Promise<PageSource> {
  const name = nameOfPlace(source.place);
  const found = kept.get(name);
  if (found !== undefined) return found.pages;
  const { reader, close } = plainReader(source);
  try {
    const pages = await pdf().open(reader);
    kept.set(name, { pages, closeFile: close });
    const [oldest] = kept.keys();
    if (kept.size > KEPT_OPEN && oldest !== undefined) forget(oldest);
    return pages;
  } catch (error) {
    close();
    throw error;
  }
}

function forget(path: string): void {
  const document = kept.get(path);
  kept.delete(path);
  document?.pages.close();
  document?.closeFile();
}

/** After a crash an engine's memory is not to be trusted: the next task starts with a new one. */
function dropEngine(): void {
  engine = null;
  for (const { closeFile } of kept.values()) closeFile();
  kept.clear();
}

/** Draws the page as it is, and puts it where all threads can take it from. */
async function drawn({
  source,
  page,
  width,
  part,
}: PageAsked): Promise<{ readonly page: Drawn; readonly picture: Picture | null }> {
  const pages = await open(source);
  const { picture, view } =
    part === undefined ? asWhole(pages.draw(page, width)) : pages.drawPart(page, width, part);
  return { picture, page: asDrawn(picture, view, pages.pageSize(page)) };
}

function asWhole(picture: Picture): PartOfPage {
  return { picture, view: wholePage(picture.width, picture.height) };
}

/** A page that many read is made small for the others by whoever reads it second: the first waits for nothing. */
async function drawPage(task: RenderTask & { kind: 'page' }): Promise<RenderResults['page']> {
  const { page, picture: own } =
    task.drawn === undefined
      ? await drawn(task)
      : { page: withFewColours(task.drawn), picture: null };
  const stamp = await marker.stamp(task.watermark, task.page, page.view);
  const picture = await markedPicture(page, stamp, task.isDark, own);
  const shown = { ...picture, points: page.points };
  return page === task.drawn ? shown : { ...shown, drawn: page };
}

/** How long one request may look through pages, in ms: others wait meanwhile. */
const SEARCHES_FOR = 400;

async function find({
  source,
  words,
  from,
}: RenderTask & { kind: 'find' }): Promise<RenderResults['find']> {
  const document = await open(source);
  const ends = performance.now() + SEARCHES_FOR;
  const found: Found[] = [];
  for (let page = from; page <= document.pages; page++) {
    if (page > from && performance.now() > ends) return { found, next: page };
    const places = document.find(page, words);
    if (places.length > 0) found.push({ page, places });
  }
  return { found, next: null };
}

async function print(task: RenderTask & { kind: 'print' }): Promise<RenderResults['print']> {
  const pages = await open(task.source);
  const size = pages.pageSize(task.page);
  const picture = pages.draw(task.page, task.width ?? PRINT_WIDTH);
  const sheet = await marker.markPaper(picture, task.watermark, task.page);
  // A PDF takes JPEG in as it is, where PNG would have to be unpacked and packed again.
  return { ...(await asJpeg(sheet)), size };
}

async function keep({
  source,
  mediaType,
  watermark,
}: RenderTask & { kind: 'keep' }): Promise<RenderResults['keep']> {
  const { keepFile } = await import('@/server/rendering/keep-file');
  return withPlain(source, (reader) => keepFile(mediaType, reader, watermark, marker));
}

async function make({
  source,
  mediaType,
}: RenderTask & { kind: 'make' }): Promise<RenderResults['make']> {
  const { makePages } = await import('@/server/rendering/making/make-pages');
  return withPlain(source, async (reader) => ({
    bytes: await makePages(mediaType, reader.read(0, reader.size), threadData().office),
  }));
}

async function annotated({
  source,
  notes,
}: RenderTask & { kind: 'annotate' }): Promise<Uint8Array> {
  return withPlain(source, (reader) => pdf().annotate(reader, notes));
}

/** Looks at a file that is being taken in, and refuses what could not be drawn or handed on within bounds later. */
async function inspect({
  source,
}: RenderTask & { kind: 'inspect' }): Promise<RenderResults['inspect']> {
  await withPlain(source, (reader) => pdf().check(reader));
  const { pages, title, draw, text } = await open(source);
  try {
    if (pages > MOST_PAGES) throw new ContentError('PDF_TOO_MANY_PAGES');
    // Drawing the first page small finds what only shows when content is read.
    draw(1, 64);
    return { pages, title, text: openingOf(pages, text) };
  } finally {
    forget(nameOfPlace(source.place));
  }
}

/** Pages whose text is looked at to see what a file is, and the most of it, in characters. */
const OPENING_PAGES = 3;
const OPENING_TEXT = 8_000;

function openingOf(pages: number, text: PageSource['text']): string {
  const shown = Array.from({ length: Math.min(pages, OPENING_PAGES) }, (_each, i) =>
    text(i + 1)
      .map((run) => run.text)
      .join(' '),
  );
  return shown.join('\n').slice(0, OPENING_TEXT);
}

async function perform(task: RenderTask): Promise<RenderResults[RenderTask['kind']]> {
  switch (task.kind) {
    case 'inspect':
      return inspect(task);
    case 'page':
      return drawPage(task);
    case 'text':
      return (await open(task.source)).text(task.page);
    case 'draw':
      return { drawn: withFewColours((await drawn(task)).page) };
    case 'outline':
      return (await open(task.source)).outline();
    case 'find':
      return find(task);
    case 'glyphs':
      return glyphsToCarry(task.watermark, task.on, scripts);
    case 'print':
      return print(task);
    case 'keep':
      return keep(task);
    case 'make':
      return make(task);
    case 'annotate':
      return { bytes: await annotated(task) };
  }
}

/** A reply whose bytes are handed over to the other thread, not copied. */
function handOver(reply: RenderReply & { ok: true }): RenderReply {
  if (!('bytes' in reply.result)) return reply;
  // Bytes that sharp allocated cannot change threads, so they are copied once, which is cheaper
  // than the two copies of a clone.
  const bytes = new Uint8Array(reply.result.bytes);
  const own = { ...reply, result: { ...reply.result, bytes } };
  return { ...own, [transferableSymbol]: [bytes.buffer], [valueSymbol]: own } as RenderReply;
}

/** What is marked was drawn before, and what is made into pages is no PDF yet. */
function needsPdf(task: RenderTask): boolean {
  return task.kind !== 'make' && !(task.kind === 'page' && task.drawn !== undefined);
}

/** Entry point of the worker thread, called by the pool. */
export default async function run({ task, begun }: RenderJob): Promise<RenderReply> {
  try {
    // Loading what draws takes long on a busy machine, and is not the document's fault.
    if (needsPdf(task)) await pdf().ready;
    Atomics.store(begun, 0, BigInt(Date.now()));
    return handOver({ ok: true, result: await perform(task) });
  } catch (error) {
    if (error instanceof ContentError) return { ok: false, code: error.code };
    dropEngine();
    // Met in the middle of PDFium's own code, which has to begin anew after it.
    if (error instanceof AgeError) return { ok: false, code: 'CONTENT_DAMAGED' };
    if (error instanceof WebAssembly.RuntimeError || error instanceof RangeError)
      return { ok: false, code: 'PDF_TOO_DEMANDING' };
    throw error;
  }
}

// Tests of the module alone have no worker data.
if (workerData !== null) {
  giveWay();
  // Warm before the first reader waits for it; what makes pages of other kinds never draws any.
  if (threadData().draws) pdf();
  const channel = new BroadcastChannel(FORGET);
  channel.onmessage = () => {
    for (const path of [...kept.keys()]) forget(path);
    clearRows();
  };
  channel.unref();
}

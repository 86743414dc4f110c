import {
  PDFArray,
  PDFContext,
  PDFDict,
  PDFName,
  PDFNumber,
  PDFObjectParser,
  PDFRef,
  type PDFObject,
} from '@cantoo/pdf-lib';
import type { PlainReader } from '@/core/age/random-access';
import { concatBytes, fromLatin1, latin1 } from '@/core/base/bytes';

// PDFium walks to a page past every page before it, and each of those that lies apart costs a chunk.
// Where a file has plain cross-reference tables, the page is found here by the counts of its tree,
// and PDFium is handed the same file with a one-page tree added at its end.

/** A part of a cross-reference table: entries of 20 bytes for objects `first` and following (ISO 32000-2, 7.5.4). */
type Section = { readonly first: number; readonly count: number; readonly at: number };
type Table = {
  readonly sections: readonly Section[];
  readonly root: PDFRef;
  readonly size: number;
  readonly start: number;
};

const ENTRY = 20;
/** Updates a file may have had before this is left to PDFium. */
const MOST_TABLES = 64;
/** Levels a page tree may have. */
const DEEPEST = 40;
const FIRST_READ = 1024;
const LARGEST_OBJECT = 1 << 20;

function textAt(reader: PlainReader, offset: number, length: number): string {
  return latin1(reader.read(offset, length));
}

/** An object that begins at `offset`, once `head` is passed; `null` where it is not whole within a bound. */
function parseAt(reader: PlainReader, offset: number, head: RegExp): PDFObject | null {
  for (let length = FIRST_READ; length <= LARGEST_OBJECT; length *= 8) {
    const bytes = reader.read(offset, length);
    const skip = head.exec(latin1(bytes.subarray(0, 64)))?.[0].length;
    if (skip === undefined) return null;
    try {
      return PDFObjectParser.forBytes(bytes.subarray(skip), PDFContext.create()).parseObject();
    } catch {
      // Perhaps it goes on beyond what was read.
    }
  }
  return null;
}

/** The sections of one table, and where its trailer begins; `null` where it is no plain table. */
function readTable(
  reader: PlainReader,
  start: number,
): { readonly sections: Section[]; readonly trailer: number } | null {
  const opening = /^xref[ \t]*(\r\n|\r|\n)/.exec(textAt(reader, start, 64));
  if (opening === null) return null;
  const sections: Section[] = [];
  for (let at = start + opening[0].length; ;) {
    const line = textAt(reader, at, 64);
    if (/^\s*trailer/.test(line)) return { sections, trailer: at };
    const [whole, first, count] = /^(\d{1,10}) (\d{1,10})[ \t]*(?:\r\n|\r|\n)/.exec(line) ?? [];
    if (whole === undefined) return null;
    sections.push({ first: Number(first), count: Number(count), at: at + whole.length });
    at += whole.length + Number(count) * ENTRY;
  }
}

/** A trailer that leads to no other kind of table and to nothing encrypted; `null` where it is not plain. */
function plainTrailer(reader: PlainReader, at: number): PDFDict | null {
  const trailer = parseAt(reader, at, /^\s*trailer\s*/);
  if (!(trailer instanceof PDFDict)) return null;
  const isPlain = !trailer.has(PDFName.of('XRefStm')) && !trailer.has(PDFName.of('Encrypt'));
  return isPlain ? trailer : null;
}

function rootAndSize(trailer: PDFDict): { readonly root: PDFRef; readonly size: number } | null {
  const [root, size] = [trailer.get(PDFName.of('Root')), trailer.get(PDFName.of('Size'))];
  return root instanceof PDFRef && size instanceof PDFNumber
    ? { root, size: size.asNumber() }
    : null;
}

/** Where the newest table begins, as the file says at its end; `null` where it says nothing, or is no PDF. */
function startOf(reader: PlainReader): number | null {
  const end = textAt(reader, Math.max(0, reader.size - 2048), 2048);
  const [, start] = /startxref\s+(\d{1,12})\s+%%EOF\s*$/.exec(end) ?? [];
  return start === undefined || textAt(reader, 0, 5) !== '%PDF-' ? null : Number(start);
}

/** All tables of a file, the newest first; `null` where any part of it is not plain. */
function readTables(reader: PlainReader): Table | null {
  const start = startOf(reader);
  if (start === null) return null;
  const sections: Section[] = [];
  let newest: { readonly root: PDFRef; readonly size: number } | null = null;
  for (let at = start, tables = 0; tables < MOST_TABLES; tables++) {
    const table = readTable(reader, at);
    const trailer = table === null ? null : plainTrailer(reader, table.trailer);
    if (table === null || trailer === null) return null;
    sections.push(...table.sections);
    newest ??= rootAndSize(trailer);
    const previous = trailer.get(PDFName.of('Prev'));
    if (newest === null) return null;
    if (previous === undefined) return { sections, ...newest, start };
    if (!(previous instanceof PDFNumber)) return null;
    at = previous.asNumber();
  }
  return null;
}

/** The dictionary of an object, looked up in the tables. */
function dictionaryOf(reader: PlainReader, { sections }: Table, ref: PDFRef): PDFDict | null {
  const section = sections.find(
    ({ first, count }) => ref.objectNumber >= first && ref.objectNumber < first + count,
  );
  if (section === undefined) return null;
  const entry = /^(\d{10}) \d{5} n[ \r][\r\n]$/.exec(
    textAt(reader, section.at + (ref.objectNumber - section.first) * ENTRY, ENTRY),
  );
  if (entry === null) return null;
  const found = parseAt(
    reader,
    Number(entry[1]),
    new RegExp(`^\\s*${String(ref.objectNumber)}\\s+${String(ref.generationNumber)}\\s+obj`),
  );
  return found instanceof PDFDict ? found : null;
}

function countOf(node: PDFDict): number | null {
  const count = node.get(PDFName.of('Count'));
  return count instanceof PDFNumber ? count.asNumber() : null;
}

/**
 * How many pages a branch says it has; `null` where it does not, or where it stands among what looked
 * like pages.
 */
function pagesBelow(branch: PDFDict, isFlat: boolean): number | null {
  const count = countOf(branch);
  return isFlat || count === null || count < 1 ? null : count;
}

/** What a step down the tree comes to: the page, or a branch and how many pages of it to pass. */
type Step = { readonly page: PDFRef } | { readonly branch: PDFDict; readonly left: number };

/** One step down towards the page `left`, counting from 0; `null` where the counts are not to be trusted. */
function stepDown(reader: PlainReader, table: Table, node: PDFDict, left: number): Step | null {
  const kids = node.get(PDFName.of('Kids'));
  if (!(kids instanceof PDFArray)) return null;
  const refs = kids.asArray();
  // As many pages as kids: they are the pages, and none needs to be looked at to skip it.
  const isFlat = countOf(node) === refs.length;
  let rest = left;
  for (const ref of isFlat ? refs.slice(left, left + 1) : refs) {
    const kid = ref instanceof PDFRef ? dictionaryOf(reader, table, ref) : null;
    if (!(ref instanceof PDFRef) || kid === null) return null;
    const pages = kid.has(PDFName.of('Kids')) ? pagesBelow(kid, isFlat) : 1;
    if (pages === null) return null;
    if (rest < pages || isFlat)
      return kid.has(PDFName.of('Kids')) ? { branch: kid, left: rest } : { page: ref };
    rest -= pages;
  }
  return null;
}

/** Goes down the tree to the page `index`, counting from 0, past whole branches by what they count. */
function findPage(reader: PlainReader, table: Table, root: PDFDict, index: number): PDFRef | null {
  let step: Step | null = { branch: root, left: index };
  for (let depth = 0; depth < DEEPEST; depth++) {
    step = stepDown(reader, table, step.branch, step.left);
    if (step === null) return null;
    if ('page' in step) return step.page;
  }
  return null;
}

/** The file with an update at its end in which its page tree has this one page, and all else is as before. */
function withOnly(
  reader: PlainReader,
  table: Table,
  rootRef: PDFRef,
  root: PDFDict,
  page: PDFRef,
): PlainReader {
  // What pages inherit from the top of the tree stays.
  root.set(PDFName.of('Kids'), root.context.obj([page]));
  root.set(PDFName.of('Count'), PDFNumber.of(1));
  const object =
    `\n${String(rootRef.objectNumber)} ${String(rootRef.generationNumber)} obj\n` +
    `${root.toString()}\nendobj\n`;
  const at = reader.size + object.length;
  const entry =
    `${String(reader.size + 1).padStart(10, '0')} ` +
    `${String(rootRef.generationNumber).padStart(5, '0')} n \n`;
  const update = fromLatin1(
    `${object}xref\n${String(rootRef.objectNumber)} 1\n${entry}trailer\n<< /Size ` +
      `${String(table.size)} /Root ${table.root.toString()} /Prev ${String(table.start)} ` +
      `>>\nstartxref\n${String(at)}\n%%EOF\n`,
  );
  return {
    size: reader.size + update.length,
    opened: reader.opened,
    read: (offset, length) => {
      const before =
        offset < reader.size
          ? reader.read(offset, Math.min(length, reader.size - offset))
          : new Uint8Array(0);
      if (before.length === length) return before;
      const from = Math.max(0, offset - reader.size);
      return concatBytes(
        before,
        update.subarray(from, Math.max(from, offset + length - reader.size)),
      );
    },
  };
}

/**
 * The same file as if it had only the page `index`, counting from 0; `null` where it is laid out in
 * a way that only PDFium knows its way about in.
 */
export function onePage(reader: PlainReader, index: number): PlainReader | null {
  const table = readTables(reader);
  const catalog = table === null ? null : dictionaryOf(reader, table, table.root);
  const rootRef = catalog?.get(PDFName.of('Pages'));
  if (table === null || !(rootRef instanceof PDFRef)) return null;
  const root = dictionaryOf(reader, table, rootRef);
  const page = root === null ? null : findPage(reader, table, root, index);
  return root === null || page === null ? null : withOnly(reader, table, rootRef, root, page);
}

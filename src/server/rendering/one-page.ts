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

function latin1(bytes: Uint8Array): string {
  return Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length).toString('latin1');
}

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

/** All tables of a file, the newest first; `null` where any part of it is not plain. */
function readTables(reader: PlainReader): Table | null {
  const end = textAt(reader, Math.max(0, reader.size - 2048), 2048);
  const start = Number(/startxref\s+(\d{1,12})\s+%%EOF\s*$/.exec(end)?.[1] ?? Number.NaN);
  if (Number.isNaN(start) || textAt(reader, 0, 5) !== '%PDF-') return null;
  const sections: Section[] = [];
  let newest: { readonly root: PDFRef; readonly size: number } | null = null;
  for (let at = start, tables = 0; tables < MOST_TABLES; tables++) {
    const table = readTable(reader, at);
    const trailer = table === null ? null : parseAt(reader, table.trailer, /^\s*trailer\s*/);
    if (
      table === null ||
      !(trailer instanceof PDFDict) ||
      trailer.has(PDFName.of('XRefStm')) ||
      trailer.has(PDFName.of('Encrypt'))
    )
      return null;
    sections.push(...table.sections);
    const [root, size, previous] = [
      trailer.get(PDFName.of('Root')),
      trailer.get(PDFName.of('Size')),
      trailer.get(PDFName.of('Prev')),
    ];
    if (newest === null && root instanceof PDFRef && size instanceof PDFNumber)
      newest = { root, size: size.asNumber() };
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

/** Goes down the tree to the page `index`, counting from 0, past whole branches by what they count. */
function findPage(reader: PlainReader, table: Table, root: PDFDict, index: number): PDFRef | null {
  let node = root;
  let left = index;
  for (let depth = 0; depth < DEEPEST; depth++) {
    const kids = node.get(PDFName.of('Kids'));
    if (!(kids instanceof PDFArray)) return null;
    const refs = kids.asArray();
    // As many pages as kids: they are the pages, and none needs to be looked at to skip it.
    const flat = countOf(node) === refs.length;
    let inside: PDFDict | null = null;
    for (const [place, ref] of refs.entries()) {
      if (!(ref instanceof PDFRef)) return null;
      if (flat && place < left) continue;
      const kid = dictionaryOf(reader, table, ref);
      if (kid === null) return null;
      if (!kid.has(PDFName.of('Kids'))) {
        if (flat || left === 0) return ref;
        left--;
        continue;
      }
      // A branch among what looked like pages: the counts are not to be trusted.
      const count = countOf(kid);
      if (flat || count === null || count < 1) return null;
      if (left < count) {
        inside = kid;
        break;
      }
      left -= count;
    }
    if (inside === null) return null;
    node = inside;
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
  const update = Buffer.from(
    `${object}xref\n${String(rootRef.objectNumber)} 1\n${entry}trailer\n<< /Size ` +
      `${String(table.size)} /Root ${table.root.toString()} /Prev ${String(table.start)} ` +
      `>>\nstartxref\n${String(at)}\n%%EOF\n`,
    'latin1',
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
      return Buffer.concat([
        before,
        update.subarray(from, Math.max(from, offset + length - reader.size)),
      ]);
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

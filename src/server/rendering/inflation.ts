import { createInflate, type Inflate } from 'node:zlib';

/** What is looked at for the marks of an object stream at a time, and how far a stream's dictionary can reach. */
const WINDOW = 4 << 20;
const DICTIONARY = 8_192;
const PIECE = 1 << 16;

/** How the object streams of a PDF unpack: within bounds, beyond them, or by filters that are not measured here. */
export type Inflation = 'within' | 'beyond' | 'unknown';

type Bytes = {
  readonly size: number;
  readonly read: (offset: number, length: number) => Uint8Array;
};

/** A name as it may be written: each letter as it is, or by its number (ISO 32000-2, 7.3.5). */
function nameOf(text: string): string {
  return Array.from(text, (letter) => `(?:${letter}|#${letter.charCodeAt(0).toString(16)})`).join(
    '',
  );
}

const PACKED = new RegExp(`/${nameOf('Type')}\\s*/(?:${nameOf('ObjStm')}|${nameOf('XRef')})`, 'gi');
const FILTER = new RegExp(
  `/${nameOf('Filter')}\\s*(\\[[^\\]]*\\]|/[^\\s/<>\\[\\]()]+|[^\\s/])`,
  'i',
);
const FLATE = new RegExp(`^/(?:${nameOf('FlateDecode')}|${nameOf('Fl')})$`, 'i');

/** How often what follows is deflated; `null` where it is packed otherwise. */
function deflatedTimes(dictionary: string): number | null {
  const filter = FILTER.exec(dictionary)?.[1];
  if (filter === undefined) return 0;
  const names = filter.startsWith('[') ? (filter.match(/\/[^\s/\[\]]+/g) ?? []) : [filter];
  return names.every((name) => FLATE.test(name)) ? names.length : null;
}

/** How many bytes a deflated stretch unpacks to; stops at `most`. What is damaged counts as far as it goes. */
function unpackedSize(bytes: Bytes, start: number, times: number, most: number): Promise<number> {
  return new Promise((resolve) => {
    const stages: Inflate[] = Array.from({ length: times }, () => createInflate());
    const [first] = stages;
    const last = stages.at(-1);
    if (first === undefined || last === undefined) {
      resolve(0);
      return;
    }
    let size = 0;
    let over = false;
    const done = (): void => {
      if (over) return;
      over = true;
      for (const stage of stages) stage.destroy();
      resolve(size);
    };
    stages.forEach((stage, i) => {
      const following = stages[i + 1];
      stage.on('error', done);
      if (following !== undefined) stage.pipe(following);
    });
    last.on('data', (piece: Buffer) => {
      size += piece.length;
      if (size > most) done();
    });
    last.on('end', done);
    let at = start;
    const feed = (): void => {
      while (!over && at < bytes.size) {
        const piece = bytes.read(at, PIECE);
        at += piece.length;
        if (!first.write(piece)) {
          first.once('drain', feed);
          return;
        }
      }
      if (!over) first.end();
    };
    feed();
  });
}

/**
 * Measures what the object and cross-reference streams of a PDF unpack to, which a rewrite
 * holds in memory. One pass over the file, in memory that does not grow with it.
 *
 * @param most bytes that all of them together may come to
 */
export async function inflationOf(bytes: Bytes, most: number): Promise<Inflation> {
  let left = most;
  let unknown = false;
  for (let at = 0; at < bytes.size; at += WINDOW) {
    const text = Buffer.from(bytes.read(at, WINDOW + DICTIONARY)).toString('latin1');
    for (const found of text.matchAll(PACKED)) {
      if (found.index >= WINDOW) continue;
      const from = text.lastIndexOf(' obj', found.index);
      const begins = /stream\r?\n/.exec(text.slice(found.index));
      if (begins === null) continue;
      const dictionary = text.slice(
        Math.max(from, found.index - DICTIONARY),
        found.index + begins.index,
      );
      const times = deflatedTimes(dictionary);
      if (times === null) unknown = true;
      else
        left -= await unpackedSize(
          bytes,
          at + found.index + begins.index + begins[0].length,
          times,
          left,
        );
      if (left < 0) return 'beyond';
    }
  }
  return unknown ? 'unknown' : 'within';
}

import { PAYLOAD_NONCE, payloadKey, type ChunkCipherFactory } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { verifyHeader } from '@/core/age/header';
import { readerOf, type PlainReader, type ReadAt } from '@/core/age/random-access';
import type { Moment } from '@/core/base/time';
import type { OwnLicence } from '@/core/licence/own-licence';
import type { Permit } from '@/core/licence/permit';
import { OwnMachineError } from '@/core/own-machine/errors';
import { PRINT_WIDTH } from '@/core/pages/picture-pdf';
import { openPdf } from '@/core/pages/pdf-document';
import {
  sizeAsked,
  type OutlineEntry,
  type PageSource,
  type TextBox,
  type TextRun,
} from '@/core/pages/page-source';
import type { Pdfium } from '@/core/pages/pdfium';
import { burn, type Picture } from '@/core/watermark/burn';
import { wholePage } from '@/core/watermark/layout';
import type { Marker } from '@/core/watermark/marker';
import { inspectFile } from '@/core/wrapper/inspect';

/** A file on the person's own machine: its size in bytes, and any part of it. */
export type OwnFile = { readonly size: number; readonly readAt: ReadAt };

/** Which page, or square of one, at which width in px. */
export type WantedPage = {
  readonly page: number;
  readonly width: number;
  readonly column?: number | undefined;
  readonly row?: number | undefined;
};
type MarkedPage = {
  /** With the watermark burned in: there is no other. */
  readonly picture: Picture;
  /** The size of the page in points. */
  readonly points: { readonly width: number; readonly height: number };
};
type Found = {
  readonly page: number;
  readonly places: readonly (readonly TextBox[])[];
};

/** What a signed permit allows. */
type TakePermit = Pick<Permit, 'watermark' | 'take'>;

/** A document that is open on the person's own machine. What the licence withholds has no way out. */
export type OwnDocument = {
  readonly pages: number;
  /** Chunks decrypted so far. */
  readonly opened: () => number;
  /** @throws OwnMachineError `LICENCE_OVER`; ContentError */
  readonly picture: (wanted: WantedPage) => Promise<MarkedPage>;
  /**
   * A page as it goes on paper, with the watermark of that copy burned in.
   *
   * @param marker with the glyphs that came with the permit
   * @throws OwnMachineError `WITHHELD` where the permit is for something else; `LICENCE_OVER`; ContentError
   */
  readonly sheet: (permit: TakePermit, page: number, marker: Marker) => Promise<MarkedPage>;
  /** The content in the clear, as it came. @throws OwnMachineError `WITHHELD` where the permit is for something else */
  readonly plain: (permit: TakePermit) => PlainReader;
  /** @throws OwnMachineError `WITHHELD` without the right to copy or reading aids */
  readonly text: (page: number) => readonly TextRun[];
  readonly outline: () => readonly OutlineEntry[];
  /** Where whole words stand, from a page on, for as long as one look may take; `next`: where to go on. */
  readonly find: (
    words: string,
    from: number,
  ) => { readonly found: readonly Found[]; readonly next: number | null };
  readonly close: () => void;
};

/** What opening one needs besides the file. */
export type OwnMachine = {
  readonly licence: OwnLicence;
  /** 16 bytes. */
  readonly fileKey: Uint8Array;
  readonly cipher: ChunkCipherFactory;
  readonly pdfium: Pdfium;
  readonly marker: Marker;
  readonly now: () => Moment;
};

/** How long one look for words goes on, in ms. */
const LOOKS_FOR = 1_000;

/**
 * Opens a protected file, or the age file out of one, under a licence: page one of a large file shows
 * as soon as the chunks it needs were authenticated.
 *
 * @throws OwnMachineError, WrapperError, AgeError, ContentError
 */
export async function openOwnDocument(file: OwnFile, machine: OwnMachine): Promise<OwnDocument> {
  const { licence, marker, now, pdfium } = machine;
  const reader = await plainOf(file, machine);
  const document = openPdf(pdfium, reader);
  const check = (): void => {
    if (now() >= licence.expiresAt) throw new OwnMachineError('LICENCE_OVER');
  };
  const checkText = (): void => {
    check();
    const mayHaveText = licence.rights.includes('copy') || licence.readingAids;
    if (!mayHaveText) throw new OwnMachineError('WITHHELD');
  };
  return {
    pages: document.pages,
    opened: reader.opened,
    picture: async (wanted) => {
      check();
      const { picture, view } = drawn(document, wanted);
      burn(picture, await marker.stamp(licence.watermark, wanted.page, view));
      return { picture, points: document.pageSize(wanted.page) };
    },
    sheet: async ({ take, watermark }, page, onPaper) => {
      check();
      if (take.kind !== 'print' || page < take.from || page > take.to)
        throw new OwnMachineError('WITHHELD');
      const drawn = document.draw(page, PRINT_WIDTH);
      const picture = await onPaper.markPaper(drawn, watermark, page);
      return { picture, points: document.pageSize(page) };
    },
    plain: ({ take }) => {
      check();
      if (take.kind !== 'keep') throw new OwnMachineError('WITHHELD');
      return reader;
    },
    text: (page) => {
      checkText();
      return document.text(page);
    },
    outline: () => {
      checkText();
      return document.outline();
    },
    find: (words, from) => {
      check();
      return findFrom(document, words, from, now);
    },
    close: document.close,
  };
}

function drawn(document: PageSource, wanted: WantedPage) {
  const { width, part } = sizeAsked(wanted);
  if (part !== undefined) return document.drawPart(wanted.page, width, part);
  const picture = document.draw(wanted.page, width);
  return { picture, view: wholePage(picture.width, picture.height) };
}

function findFrom(document: PageSource, words: string, from: number, now: () => Moment) {
  const ends = now() + LOOKS_FOR;
  const found: Found[] = [];
  for (let page = from; page <= document.pages; page++) {
    if (page > from && now() > ends) return { found, next: page };
    const places = document.find(page, words);
    if (places.length > 0) found.push({ page, places });
  }
  return { found, next: null };
}

/** The plain content of the version that the licence is for, decrypted where it is read. */
async function plainOf(
  { size, readAt }: OwnFile,
  { licence, fileKey, cipher }: OwnMachine,
): Promise<PlainReader> {
  const read = (offset: number, length: number): Promise<Uint8Array> =>
    Promise.resolve(readAt(offset, Math.max(0, Math.min(length, size - offset))));
  const { offset, length, header, stanza } = await inspectFile(read, size);
  if (stanza?.version !== licence.version) throw new OwnMachineError('ANOTHER_VERSION');
  if (!verifyHeader(header, fileKey)) throw new AgeError('DAMAGED', 'header');
  const start = header.length + PAYLOAD_NONCE;
  if (length < start) throw new AgeError('DAMAGED', 'short file');
  const nonce = readAt(offset + header.length, PAYLOAD_NONCE);
  const key = payloadKey(fileKey, nonce);
  return readerOf(cipher(key), length - start, (at, bytes) => readAt(offset + start + at, bytes));
}

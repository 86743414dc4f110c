import { inSeenOrder, levelsOf } from '@/core/base/seen-order';
import {
  type PDFDict,
  PDFName,
  PDFNumber,
  PDFOperator,
  PDFOperatorNames,
  PDFString,
  PDFHexString,
  rgb,
  type Color,
  type PDFDocument,
  type PDFFont,
  type PDFPage,
  type PDFRef,
} from '@cantoo/pdf-lib';

/** A standard structure type (ISO 32000-2, 14.8.4). */
export type Tag = 'H1' | 'H2' | 'P' | 'Figure' | 'Link';
export type Face = {
  readonly fonts: readonly { readonly font: PDFFont; readonly has: ReadonlySet<number> }[];
};
export type TextStyle = {
  readonly face: Face;
  readonly size: number;
  readonly color: Color;
  readonly lead: number;
};

export const ink = rgb(0.059, 0.169, 0.235);
export const quietInk = rgb(0.298, 0.384, 0.439);
export const line = rgb(0.788, 0.769, 0.698);

/**
 * Pieces of one line in the order they are seen in, each in the font that has its characters. What no
 * font has is drawn as a question mark.
 */
function runsOf(
  text: string,
  { fonts }: Face,
): { readonly text: string; readonly font: PDFFont }[] {
  const levels = levelsOf(text);
  const runs: { text: string; font: PDFFont; level: number }[] = [];
  let at = 0;
  for (const character of text) {
    const level = levels[at] ?? 0;
    at += character.length;
    const found = fonts.find(({ has }) => has.has(character.codePointAt(0) ?? 0));
    const font = (found ?? fonts[0])?.font;
    if (font === undefined) return runs;
    const drawn = found === undefined ? '?' : character;
    const last = runs.at(-1);
    // The font itself turns what is written from the right.
    if (last?.font === font && last.level === level) last.text += drawn;
    else runs.push({ text: drawn, font, level });
  }
  return inSeenOrder(runs);
}

function widthOf(text: string, { face, size }: TextStyle): number {
  return runsOf(text, face).reduce(
    (sum, run) => sum + run.font.widthOfTextAtSize(run.text, size),
    0,
  );
}

/** A word as pieces that fit: a long address is broken where it must be. */
function piecesOf(word: string, style: TextStyle, width: number): string[] {
  const pieces: string[] = [];
  for (const character of word) {
    const last = pieces.at(-1) ?? '';
    if (pieces.length > 0 && widthOf(last + character, style) <= width)
      pieces[pieces.length - 1] = last + character;
    else pieces.push(character);
  }
  return pieces;
}

/** The text broken into lines of at most `width` points. */
function linesOf(text: string, style: TextStyle, width: number): string[] {
  const lines: string[] = [];
  for (const word of text
    .split(/\s+/)
    .flatMap((each) => (widthOf(each, style) > width ? piecesOf(each, style, width) : [each]))) {
    const longer = lines.length === 0 ? word : `${lines.at(-1) ?? ''} ${word}`;
    if (lines.length > 0 && widthOf(longer, style) <= width) lines[lines.length - 1] = longer;
    else lines.push(word);
  }
  return lines;
}

/** A page on which everything that is said is tagged, in reading order (ISO 32000-2, 14.7 and 14.8). */
export class TaggedPage {
  readonly #elements: { readonly ref: PDFRef; readonly dictionary: PDFDict }[] = [];
  readonly #annotations: { readonly element: PDFRef; readonly key: number }[] = [];
  readonly #root: PDFRef;
  readonly #tree: PDFRef;

  constructor(
    private readonly document: PDFDocument,
    readonly page: PDFPage,
  ) {
    this.#root = document.context.nextRef();
    this.#tree = document.context.nextRef();
  }

  /** Writes text from (`x`, `y`) down, at most `width` points wide. @returns the y below it */
  text(
    tag: Tag,
    text: string,
    at: { readonly x: number; readonly y: number; readonly width: number },
    style: TextStyle,
  ): number {
    const lines = linesOf(text, style, at.width);
    this.#open(tag, { ActualText: PDFHexString.fromText(text) });
    let y = at.y - style.size;
    for (const each of lines) {
      let x = at.x;
      for (const run of runsOf(each, style.face)) {
        this.page.drawText(run.text, {
          x,
          y,
          size: style.size,
          font: run.font,
          color: style.color,
        });
        x += run.font.widthOfTextAtSize(run.text, style.size);
      }
      y -= style.lead;
    }
    this.#close();
    return y + style.lead;
  }

  /** A picture drawn by `draw`, with the words that stand for it. */
  figure(words: string, draw: () => void): void {
    this.#open('Figure', { Alt: PDFHexString.fromText(words) });
    draw();
    this.#close();
  }

  /** Lines and grounds that say nothing. */
  artifact(draw: () => void): void {
    this.page.pushOperators(
      PDFOperator.of(PDFOperatorNames.BeginMarkedContent, [PDFName.of('Artifact')]),
    );
    draw();
    this.#close();
  }

  /** Makes the last thing written a link: an annotation over `box` that belongs to it. */
  link(url: string, box: readonly [number, number, number, number]): void {
    const element = this.#elements.at(-1);
    if (element === undefined) throw new Error('a link needs its words first');
    const { context } = this.document;
    const key = this.#annotations.length + 1;
    const annotation = context.register(
      context.obj({
        Type: 'Annot',
        Subtype: 'Link',
        Rect: [...box],
        Border: [0, 0, 0],
        F: 4,
        StructParent: key,
        Contents: PDFString.of(url),
        A: { Type: 'Action', S: 'URI', URI: PDFString.of(url) },
      }),
    );
    this.page.node.addAnnot(annotation);
    // The element holds its text and the annotation that makes the text a link.
    element.dictionary.set(
      PDFName.of('K'),
      context.obj([
        this.#elements.length - 1,
        { Type: 'OBJR', Obj: annotation, Pg: this.page.ref },
      ]),
    );
    this.#annotations.push({ element: element.ref, key });
  }

  /** Writes the structure tree into the catalog; nothing may be drawn after it. */
  finish(): void {
    const { context, catalog } = this.document;
    const whole = context.register(
      context.obj({
        Type: 'StructElem',
        S: 'Document',
        P: this.#root,
        K: this.#elements.map(({ ref }) => ref),
      }),
    );
    for (const { dictionary } of this.#elements) dictionary.set(PDFName.of('P'), whole);
    const nums = [
      PDFNumber.of(0),
      context.obj(this.#elements.map(({ ref }) => ref)),
      ...this.#annotations.flatMap(({ element, key }) => [PDFNumber.of(key), element]),
    ];
    context.assign(this.#tree, context.obj({ Nums: nums }));
    context.assign(
      this.#root,
      context.obj({
        Type: 'StructTreeRoot',
        K: whole,
        ParentTree: this.#tree,
        ParentTreeNextKey: this.#annotations.length + 1,
      }),
    );
    catalog.set(PDFName.of('StructTreeRoot'), this.#root);
    catalog.set(PDFName.of('MarkInfo'), context.obj({ Marked: true }));
    this.page.node.set(PDFName.of('StructParents'), PDFNumber.of(0));
    this.page.node.set(PDFName.of('Tabs'), PDFName.of('S'));
  }

  #open(tag: Tag, extra: Record<string, PDFHexString>): void {
    const { context } = this.document;
    const id = this.#elements.length;
    const dictionary = context.obj({
      Type: 'StructElem',
      S: tag,
      Pg: this.page.ref,
      K: id,
      ...extra,
    });
    this.#elements.push({ ref: context.register(dictionary), dictionary });
    this.page.pushOperators(
      PDFOperator.of(PDFOperatorNames.BeginMarkedContentSequence, [
        PDFName.of(tag),
        `<</MCID ${String(id)}>>`,
      ]),
    );
  }

  #close(): void {
    this.page.pushOperators(PDFOperator.of(PDFOperatorNames.EndMarkedContent));
  }
}

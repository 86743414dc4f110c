import fontkit from '@cantoo/fontkit';
import type { PDFDocument, PDFFont } from '@cantoo/pdf-lib';
import { facesFor, type Face, type Lettering, type Piece } from '@/server/rendering/making/faces';

/** Scripts whose letters change with those beside them: they are set as words, not letter by letter. */
const JOINED = /[\u0590-\u08ff\u0900-\u0fff\ufb1d-\ufdff\ufe70-\ufefc]/u;

/** What is drawn of a letter or a word: its glyphs in a font, and how wide they are in ems. */
type Glyphs = { readonly font: string; readonly hex: string; readonly width: number };

export type Typesetter = {
  /** The width of text in ems. */
  readonly width: (lettering: Lettering) => number;
  /** The orders that draw text from a point on, in a size in points (ISO 32000-2, 9.4.3). */
  readonly draw: (lettering: Lettering, x: number, y: number, size: number) => string;
  /** Every font under the name that those orders have for it. */
  readonly fonts: ReadonlyMap<string, PDFFont>;
};

/** Sets short pieces of text fast: what a letter is in its font is looked up once. */
export async function createTypesetter(
  document: PDFDocument,
  texts: Iterable<Lettering>,
): Promise<Typesetter> {
  const faces = await facesFor(texts);
  document.registerFontkit(fontkit);
  const fonts = new Map<string, PDFFont>();
  const names = new Map<string, string>();
  for (const [name, bytes] of faces.fonts) {
    const short = `F${String(names.size)}`;
    names.set(name, short);
    fonts.set(short, await document.embedFont(bytes));
  }
  const glyphs = ({ text, font }: Piece): Glyphs => {
    const embedded = fonts.get(names.get(font) ?? '');
    if (embedded === undefined) return { hex: '', width: 0, font: '' };
    return {
      font: names.get(font) ?? '',
      hex: embedded.encodeText(text).asString(),
      width: embedded.widthOfTextAtSize(text, 1),
    };
  };
  const known = new Map<string, Glyphs>();
  const letter = (character: string, face: Face): Glyphs => {
    const key = face + character;
    const found = known.get(key);
    if (found !== undefined) return found;
    const [piece] = faces.split({ text: character, face });
    const made = piece === undefined ? { hex: '', width: 0, font: '' } : glyphs(piece);
    known.set(key, made);
    return made;
  };
  const set = ({ text, face }: Lettering): Glyphs[] =>
    JOINED.test(text)
      ? faces.split({ text, face }).map(glyphs)
      : Array.from(text, (character) => letter(character, face));
  return {
    fonts,
    width: (lettering) => {
      let sum = 0;
      for (const { width } of set(lettering)) sum += width;
      return sum;
    },
    draw: (lettering, x, y, size) => {
      let drawn = `1 0 0 1 ${short(x)} ${short(y)} Tm\n`;
      let font = '';
      let run = '';
      const end = (): void => {
        if (run !== '') drawn += `/${font} ${short(size)} Tf <${run}> Tj\n`;
        run = '';
      };
      for (const piece of set(lettering)) {
        if (piece.font !== font) end();
        font = piece.font;
        run += piece.hex;
      }
      end();
      return drawn;
    },
  };
}

function short(value: number): string {
  return String(Math.round(value * 100) / 100);
}

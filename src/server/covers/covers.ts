import { readFileSync } from 'node:fs';
import path from 'node:path';
import QRCode from 'qrcode';
import { coverLetters } from '@/core/wrapper/cover-words';
import type { CoverFacts, CoverFonts } from '@/core/wrapper/cover';
import type { Cover } from '@/core/wrapper/write';

export type Covers = {
  /** Draws a cover page. @param name the name of the age file inside */
  readonly draw: (facts: Omit<CoverFacts, 'code'>, id: Uint8Array, name: string) => Promise<Cover>;
};

function font(folder: string, script: 'latin' | 'latin-ext', weight: 400 | 600): Uint8Array {
  return readFileSync(
    path.join(folder, `atkinson-hyperlegible-next-${script}-${String(weight)}-normal.woff`),
  );
}

/** The text as rows of modules. Error correction M: a printed page is folded and stained. */
function codeOf(text: string): boolean[][] {
  const { modules } = QRCode.create(text, { errorCorrectionLevel: 'M' });
  return Array.from({ length: modules.size }, (_row, y) =>
    Array.from({ length: modules.size }, (_column, x) => modules.get(y, x) === 1),
  );
}

/** What the shipped Latin letters lack: other scripts, in the words of the page and in names. */
const LATIN = /^[\p{Script=Latin}\p{Script=Common}\p{Script=Inherited}]*$/u;

/** Fonts cut to the letters of other scripts that a page has; none, mostly. */
async function othersFor(facts: Omit<CoverFacts, 'code'>): Promise<CoverFonts> {
  const { organisation, sender, reference, title, sentTo } = facts;
  const names = [organisation, sender, reference, title ?? '', sentTo ?? ''];
  const words = coverLetters(facts.language);
  const text = [...names, words].filter((each) => !LATIN.test(each)).join(' ');
  if (text === '') return { regular: [], strong: [] };
  const { facesFor } = await import('@/server/rendering/making/faces');
  const cut = async (face: 'regular' | 'bold') => [
    ...(await facesFor([{ text, face }])).fonts.values(),
  ];
  return { regular: await cut('regular'), strong: await cut('bold') };
}

function withOthers(fonts: CoverFonts, others: CoverFonts): CoverFonts {
  return {
    regular: [...fonts.regular, ...others.regular],
    strong: [...fonts.strong, ...others.strong],
  };
}

/** Cover pages in the shipped fonts. They and what draws with them are loaded with the first page, not at the start. */
export function createCovers(fontsFolder: string): Covers {
  let fonts: CoverFonts | undefined;
  return {
    draw: async (facts, id, name) => {
      const { coverPage } = await import('@/core/wrapper/cover');
      fonts ??= {
        regular: [font(fontsFolder, 'latin', 400), font(fontsFolder, 'latin-ext', 400)],
        strong: [font(fontsFolder, 'latin', 600), font(fontsFolder, 'latin-ext', 600)],
      };
      const all = withOthers(fonts, await othersFor(facts));
      return coverPage({ ...facts, code: codeOf(facts.link) }, all, id, name);
    },
  };
}

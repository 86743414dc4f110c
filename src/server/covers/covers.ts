import { readFileSync } from 'node:fs';
import path from 'node:path';
import QRCode from 'qrcode';
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
      return coverPage({ ...facts, code: codeOf(facts.link) }, fonts, id, name);
    },
  };
}

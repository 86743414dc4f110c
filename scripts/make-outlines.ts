// Writes src/core/watermark/outlines.json from the shipped font: run once, and again when the font changes.
//   npx tsx scripts/make-outlines.ts
import { readFileSync, writeFileSync } from 'node:fs';
import opentype from 'opentype.js';

const folder = 'node_modules/@fontsource/atkinson-hyperlegible-next/files';
const outlines: Record<string, [number, string]> = {};
let unitsPerEm = 1000;

for (const subset of ['latin', 'latin-ext']) {
  const bytes = readFileSync(`${folder}/atkinson-hyperlegible-next-${subset}-600-normal.woff`);
  const font = opentype.parse(
    bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength),
  );
  unitsPerEm = font.unitsPerEm;
  for (let index = 0; index < font.glyphs.length; index++) {
    const glyph = font.glyphs.get(index);
    for (const code of glyph.unicodes) {
      const path = glyph.path.commands
        .map((c) => {
          if (c.type === 'Z') return 'Z';
          const numbers =
            c.type === 'C'
              ? [c.x1, c.y1, c.x2, c.y2, c.x, c.y]
              : c.type === 'Q'
                ? [c.x1, c.y1, c.x, c.y]
                : [c.x, c.y];
          return `${c.type}${numbers.map((n) => Math.round(n)).join(' ')}`;
        })
        .join('');
      outlines[String.fromCodePoint(code)] ??= [Math.round(glyph.advanceWidth ?? 0), path];
    }
  }
}

const font = 'Atkinson Hyperlegible Next SemiBold, SIL Open Font License 1.1';
const json = JSON.stringify({ font, unitsPerEm, outlines }).replaceAll('"],"', '"],\n"');
writeFileSync('src/core/watermark/outlines.json', `${json}\n`);
console.log(`${String(Object.keys(outlines).length)} outlines`);

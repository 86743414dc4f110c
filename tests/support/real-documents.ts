import { existsSync, readFileSync } from 'node:fs';

const FOLDER = 'build/real-documents';

/** A PDF out of Debian's packages, made by none of us; `npm test` fetches it. */
export function realDocument(name: 'gnuplot' | 'intro' | 'usage'): Buffer {
  const file = `${FOLDER}/${name}.pdf`;
  if (!existsSync(file)) throw new Error(`${file} is missing: \`npm test\` fetches it.`);
  return readFileSync(file);
}

/** The same file with the address of its cross-reference table pointing nowhere. */
export function withBrokenTable(pdf: Buffer): Buffer {
  const at = pdf.lastIndexOf('startxref');
  const digits = pdf.indexOf(10, at) + 1;
  const broken = Buffer.from(pdf);
  for (let i = digits; broken[i] !== undefined && broken[i] !== 10 && broken[i] !== 13; i++)
    broken[i] = 0x37;
  return broken;
}

import { createRequire } from 'node:module';
import type { TDocumentDefinitions, TFontDictionary } from 'pdfmake/interfaces';

/** Fonts by the name that a text calls them by. */
type Files = {
  readonly existsSync: (name: string) => boolean;
  readonly readFileSync: (name: string) => Uint8Array | undefined;
};
type Resolver = {
  readonly resolve: (url: string) => void;
  readonly resolved: () => Promise<void>;
};
type Printer = {
  readonly createPdfKitDocument: (definition: TDocumentDefinitions) => Promise<PDFKit.PDFDocument>;
};
type Module = {
  readonly default: new (
    fonts: TFontDictionary,
    files: Files,
    resolver: Resolver,
    mayRead: (path: string) => boolean,
  ) => Printer;
};

/** Nothing is fetched and no file is read, whatever a text names. */
const NOTHING_FETCHED: Resolver = {
  resolve: () => undefined,
  resolved: () => Promise.resolve(),
};

// The part of pdfmake that lays out and writes; its usual entry keeps fonts for the whole process.
const load = createRequire(import.meta.url);

/** Lays a text out in these fonts, each a TrueType file by its name, and writes it as a PDF. */
export async function printed(
  definition: TDocumentDefinitions,
  fonts: ReadonlyMap<string, Uint8Array>,
): Promise<Uint8Array> {
  const { default: PdfPrinter } = load('pdfmake/js/Printer.js') as Module;
  const named = Object.fromEntries(
    [...fonts.keys()].map((name) => [
      name,
      { normal: name, bold: name, italics: name, bolditalics: name },
    ]),
  );
  const files: Files = {
    existsSync: (name) => fonts.has(name),
    readFileSync: (name) => fonts.get(name),
  };
  const printer = new PdfPrinter(named, files, NOTHING_FETCHED, () => false);
  const document = await printer.createPdfKitDocument(definition);
  const pieces: Uint8Array[] = [];
  const written = new Promise<void>((resolve, reject) => {
    document.on('data', (piece: Uint8Array) => pieces.push(piece));
    document.on('end', resolve);
    document.on('error', reject);
  });
  document.end();
  await written;
  return Buffer.concat(pieces);
}

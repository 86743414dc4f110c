import fontkit from '@cantoo/fontkit';
import { PDFDocument, PDFHeader, PDFHexString, PDFName, PDFRef, PDFString } from '@cantoo/pdf-lib';
import { coverWords } from '@/core/wrapper/cover-words';
import {
  TaggedPage,
  ink,
  line,
  quietInk,
  type Face,
  type TextStyle,
} from '@/core/wrapper/tagged-page';
import type { Cover } from '@/core/wrapper/write';

/** What a cover page says. Nothing of it is secret: anyone who has the file reads it. */
export type CoverFacts = {
  readonly organisation: string;
  readonly sender: string;
  readonly senderAddress: string;
  readonly reference: string;
  /** `null` where the sender does not want it on the cover. */
  readonly title: string | null;
  /** The organisation the file was made for; `null` where none is known. */
  readonly sentTo: string | null;
  readonly link: string;
  /** The link as a QR code: rows of modules, `true` is dark. */
  readonly code: readonly (readonly boolean[])[];
  /** The recipient's language (BCP 47), where it is known. */
  readonly language: string | null;
  /** Milliseconds since the epoch. */
  readonly createdAt: number;
};

/** Font files (WOFF or TrueType) of two weights; the first that has a character draws it. */
export type CoverFonts = {
  readonly regular: readonly Uint8Array[];
  readonly strong: readonly Uint8Array[];
};

const A4 = [595.28, 841.89] as const;
const MARGIN = 64;
const WIDTH = A4[0] - 2 * MARGIN;
const CODE = 116;

async function faceOf(document: PDFDocument, files: readonly Uint8Array[]): Promise<Face> {
  const fonts = await Promise.all(
    files.map((file) => document.embedFont(file as Uint8Array<ArrayBuffer>, { subset: true })),
  );
  return { fonts: fonts.map((font) => ({ font, has: new Set(font.getCharacterSet()) })) };
}

/** The code as one path: a square for each run of dark modules in a row. */
function codePath(code: CoverFacts['code'], side: number): string {
  const unit = side / code.length;
  return code
    .flatMap((row, y) =>
      row.flatMap((dark, x) =>
        dark
          ? [
              `M${String(x * unit)} ${String(y * unit)}h${String(unit)}v${String(unit)}h-${String(unit)}z`,
            ]
          : [],
      ),
    )
    .join('');
}

function compose(tagged: TaggedPage, facts: CoverFacts, regular: Face, strong: Face): void {
  const { words } = coverWords(facts.language);
  const plain: TextStyle = { face: regular, size: 11.5, color: ink, lead: 17 };
  const quiet: TextStyle = { face: regular, size: 9.5, color: quietInk, lead: 14 };
  const bold: TextStyle = { ...plain, face: strong };
  const full = { x: MARGIN, width: WIDTH };
  const rule = (y: number): void => {
    tagged.artifact(() => {
      tagged.page.drawLine({
        start: { x: MARGIN, y },
        end: { x: MARGIN + WIDTH, y },
        thickness: 0.6,
        color: line,
      });
    });
  };

  let y = A4[1] - 76;
  y = tagged.text('P', facts.organisation, { ...full, y }, { ...bold, size: 13 }) - 26;
  y =
    tagged.text(
      'H1',
      words.heading,
      { ...full, y },
      { face: strong, size: 23, color: ink, lead: 28 },
    ) - 12;
  y = tagged.text('P', words.from(facts.sender, facts.organisation), { ...full, y }, plain) - 18;
  rule(y);
  y -= 14;
  for (const [label, value] of [
    [words.reference, facts.reference],
    [words.title, facts.title],
    [words.sentTo, facts.sentTo],
  ] as const) {
    if (value === null) continue;
    y = tagged.text('P', `${label}: ${value}`, { ...full, y }, plain) - 7;
  }
  y -= 7;
  rule(y);
  y = tagged.text('H2', words.howTo, { ...full, y: y - 22 }, { ...bold, size: 14 }) - 10;
  words.steps.forEach((step, index) => {
    y = tagged.text('P', `${String(index + 1)}.  ${step}`, { ...full, y }, plain) - 7;
  });
  y -= 9;
  const top = y;
  y = tagged.text('Link', facts.link, { ...full, y }, { ...bold, lead: 17 });
  tagged.link(facts.link, [MARGIN, y - 4, MARGIN + WIDTH, top]);
  y -= 24;
  const codeTop = y;
  tagged.figure(`${words.code}: ${facts.link}`, () => {
    tagged.page.drawSvgPath(codePath(facts.code, CODE), { x: MARGIN, y: codeTop, color: ink });
  });
  y = tagged.text('P', words.code, { ...full, y: codeTop - CODE - 6 }, quiet) - 24;
  y = tagged.text('P', words.ask(facts.sender, facts.senderAddress), { ...full, y }, plain) - 20;
  rule(y);
  tagged.text('P', words.inside, { ...full, y: y - 12 }, quiet);
}

/**
 * Draws the cover page of a protected file: one tagged page in the recipient's language, as a PDF
 * 2.0 unencrypted wrapper document (ISO 32000-2, 7.6.7) that still lacks its payload.
 *
 * @param id 16 random bytes that identify the file
 * @param name the name of the age file inside
 */
export async function coverPage(
  facts: CoverFacts,
  fonts: CoverFonts,
  id: Uint8Array,
  name: string,
): Promise<Cover> {
  const document = await PDFDocument.create({ updateMetadata: false });
  document.registerFontkit(fontkit);
  const { context, catalog } = document;
  context.header = PDFHeader.forVersion(2, 0);
  const { language, words } = coverWords(facts.language);
  const tagged = new TaggedPage(document, document.addPage([...A4]));
  const [regular, strong] = [
    await faceOf(document, fonts.regular),
    await faceOf(document, fonts.strong),
  ];
  compose(tagged, facts, regular, strong);
  tagged.finish();

  document.setTitle(`${facts.reference}: ${words.heading}`, { showInWindowTitleBar: true });
  document.setCreationDate(new Date(facts.createdAt));
  document.setModificationDate(new Date(facts.createdAt));
  catalog.set(PDFName.of('Lang'), PDFString.of(language));
  await document.flush();

  // The payload comes later, as the two objects after the last of these.
  const fileObject = context.largestObjectNumber + 1;
  const file = PDFRef.of(fileObject);
  catalog.set(PDFName.of('AF'), context.obj([file]));
  catalog.set(
    PDFName.of('Names'),
    context.obj({ EmbeddedFiles: { Names: [PDFHexString.fromText(name), file] } }),
  );
  catalog.set(
    PDFName.of('Collection'),
    context.obj({ Type: 'Collection', View: 'H', D: PDFHexString.fromText(name) }),
  );
  const identifier = PDFHexString.of(
    Array.from(id, (byte) => byte.toString(16).padStart(2, '0')).join(''),
  );
  context.trailerInfo.ID = context.obj([identifier, identifier]);
  const pdf = await document.save({
    useObjectStreams: false,
    addDefaultPage: false,
    updateFieldAppearances: false,
  });
  const root = context.trailerInfo.Root;
  if (!(root instanceof PDFRef)) throw new Error('the cover has no catalog');
  return { pdf, fileObject, rootObject: root.objectNumber, link: facts.link, id };
}

import { PDFDocument, PDFHexString, PDFName, PDFString, type PDFPage } from '@cantoo/pdf-lib';
import { boxesOf, WHOLE_PAGE, type CommentBox } from '@/core/comments/comment';
import { ContentError } from '@/core/pages/errors';
import { inflationOf } from '@/server/rendering/inflation';
import type { Note } from '@/core/pages/page-source';

/** Larger documents are not rewritten: it would take more memory than a server should give. */
const MAX_ANNOTATED = 96 << 20;
const MAX_UNPACKED = 128 << 20;
/** Side of a note's symbol, in points. */
const SYMBOL = 20;

/** A moment as PDF writes it (ISO 32000-2, 7.9.4). */
function pdfDate(moment: number): string {
  return `D:${new Date(moment).toISOString().replaceAll(/[-:T]/g, '').slice(0, 14)}Z`;
}

type Rectangle = readonly [left: number, bottom: number, right: number, top: number];

/** A place as it is seen, on the sheet as it lies, in points; y grows upwards. */
function onSheet(page: PDFPage, { left, top, width, height }: CommentBox): Rectangle {
  const sheet = page.getMediaBox();
  const quarters = (((page.getRotation().angle / 90) % 4) + 4) % 4;
  const [fromX, toX] = [left / WHOLE_PAGE, (left + width) / WHOLE_PAGE];
  const [fromY, toY] = [top / WHOLE_PAGE, (top + height) / WHOLE_PAGE];
  const shares = (
    [
      [fromX, 1 - toY, toX, 1 - fromY],
      [fromY, fromX, toY, toX],
      [1 - toX, fromY, 1 - fromX, toY],
      [1 - toY, 1 - toX, 1 - fromY, 1 - fromX],
    ] as const
  )[quarters] ?? [fromX, 1 - toY, toX, 1 - fromY];
  return [
    sheet.x + shares[0] * sheet.width,
    sheet.y + shares[1] * sheet.height,
    sheet.x + shares[2] * sheet.width,
    sheet.y + shares[3] * sheet.height,
  ];
}

function around(rectangles: readonly Rectangle[]): Rectangle {
  return [
    Math.min(...rectangles.map(([left]) => left)),
    Math.min(...rectangles.map(([, bottom]) => bottom)),
    Math.max(...rectangles.map(([, , right]) => right)),
    Math.max(...rectangles.map(([, , , top]) => top)),
  ];
}

/** What kind of annotation a note is, and where: ISO 32000-2, 12.5.6.4, 12.5.6.8, 12.5.6.10. */
function shapeOf(page: PDFPage, { place }: Note) {
  if (place.kind === 'point') {
    const [left, , , top] = onSheet(page, { ...place, width: 0, height: 0 });
    return { Subtype: 'Text', Rect: [left, top - SYMBOL, left + SYMBOL, top], Name: 'Comment' };
  }
  const rectangles = boxesOf(place).map((box) => onSheet(page, box));
  if (place.kind === 'area') return { Subtype: 'Square', Rect: [...around(rectangles)] };
  return {
    Subtype: 'Highlight',
    Rect: [...around(rectangles)],
    QuadPoints: rectangles.flatMap(([left, bottom, right, top]) => [
      left,
      top,
      right,
      top,
      left,
      bottom,
      right,
      bottom,
    ]),
  };
}

/** The document with a note for each remark, its maker and moment beside it. @throws ContentError */
export async function annotate(bytes: Uint8Array, notes: readonly Note[]): Promise<Uint8Array> {
  const reader = {
    size: bytes.length,
    read: (at: number, length: number) => bytes.subarray(at, Math.min(bytes.length, at + length)),
  };
  if (bytes.length > MAX_ANNOTATED || (await inflationOf(reader, MAX_UNPACKED)) !== 'within')
    throw new ContentError('PDF_TOO_DEMANDING');
  try {
    const pdf = await PDFDocument.load(bytes, { updateMetadata: false });
    for (const note of notes) {
      const page = pdf.getPage(note.page - 1);
      const { Subtype, Rect, ...shape } = shapeOf(page, note);
      const said = [note.isResolved ? '(resolved) ' : '', note.text].join('');
      const annotation = pdf.context.obj({
        Type: 'Annot',
        Subtype,
        Rect,
        ...shape,
        F: 4,
        C: [0.12, 0.44, 0.47],
      });
      annotation.set(PDFName.of('Contents'), PDFHexString.fromText(said));
      annotation.set(PDFName.of('T'), PDFHexString.fromText(note.by));
      annotation.set(PDFName.of('M'), PDFString.of(pdfDate(note.madeAt)));
      annotation.set(PDFName.of('P'), page.ref);
      page.node.addAnnot(pdf.context.register(annotation));
    }
    return await pdf.save({ useObjectStreams: false });
  } catch (cause) {
    throw new ContentError('PDF_DAMAGED', { cause });
  }
}

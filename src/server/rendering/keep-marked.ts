import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFName,
  PDFStream,
  drawObject,
  concatTransformationMatrix,
  fill,
  moveTo,
  lineTo,
  closePath,
  popGraphicsState,
  pushGraphicsState,
  setFillingRgbColor,
  setGraphicsState,
  type PDFObject,
  type PDFOperator,
} from '@cantoo/pdf-lib';
import { inflationOf } from '@/server/rendering/inflation';
import { layOut, textSize } from '@/core/watermark/layout';
import { outlineOf } from '@/core/watermark/outline';

/** Larger documents are handed over as they are: marking them would take more memory than a server should give. */
export const MAX_MARKED = 96 * 1024 * 1024;
/** What its object streams may unpack to: all of it is held in memory at once. */
const MAX_UNPACKED = 128 * 1024 * 1024;

/** The watermark as drawing operators in a form that every repetition shows again. */
function textOperators(text: string, size: number): PDFOperator[] {
  const drawn = outlineOf(text, size).contours.flatMap((contour) => {
    const points: PDFOperator[] = [moveTo(contour[0] ?? 0, -(contour[1] ?? 0))];
    for (let i = 2; i < contour.length; i += 2)
      points.push(lineTo(round(contour[i] ?? 0), round(-(contour[i + 1] ?? 0))));
    return [...points, closePath()];
  });
  return [...drawn, fill()];
}

function round(value: number): number {
  return Math.round(value * 100) / 100;
}

type Sheet = {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
};

/**
 * Where a point of the page as it is seen, from its top left, lies on the sheet that is turned
 * clockwise by `quarters`.
 */
function onSheet(
  { x, y, width, height }: Sheet,
  quarters: number,
  left: number,
  down: number,
): [number, number] {
  switch (quarters) {
    case 1:
      return [x + down, y + left];
    case 2:
      return [x + width - left, y + down];
    case 3:
      return [x + width - down, y + height - left];
    default:
      return [x + left, y + height - down];
  }
}

/**
 * The document with the watermark drawn over every page, as outlines, so that it needs no font.
 *
 * `marked` is false where the PDF could not be rewritten; it then comes back as it was.
 */
export async function keepMarked(
  bytes: Uint8Array,
  watermark: string,
): Promise<{ readonly bytes: Uint8Array; readonly marked: boolean }> {
  if (watermark.trim() === '' || bytes.length > MAX_MARKED) return { bytes, marked: false };
  if (
    (await inflationOf(
      {
        size: bytes.length,
        read: (at, length) => bytes.subarray(at, Math.min(bytes.length, at + length)),
      },
      MAX_UNPACKED,
    )) !== 'within'
  )
    return { bytes, marked: false };
  try {
    return { bytes: await withMark(bytes, watermark), marked: true };
  } catch {
    // Viewers repair more than can be rewritten.
    return { bytes, marked: false };
  }
}

/** Actions that run something, or lead out of the document (ISO 32000-2, table 201). */
const LEADING_OUT = new Set([
  '/JavaScript',
  '/Launch',
  '/URI',
  '/GoToR',
  '/GoToE',
  '/SubmitForm',
  '/ImportData',
  '/Rendition',
  '/RichMediaExecute',
  '/GoTo3DView',
]);

function actsOut(action: PDFObject | undefined): boolean {
  return action instanceof PDFDict && LEADING_OUT.has(String(action.get(PDFName.of('S'))));
}

/** Takes what acts by itself, and what leads elsewhere, out of one object and all that stands directly in it. */
function quietObject(
  object: PDFObject,
  find: (object: PDFObject | undefined) => PDFObject | undefined,
): void {
  if (object instanceof PDFStream) quietObject(object.dict, find);
  if (object instanceof PDFArray) for (const each of object.asArray()) quietObject(each, find);
  if (!(object instanceof PDFDict)) return;
  for (const name of ['AA', 'JavaScript', 'JS', 'XFA']) object.delete(PDFName.of(name));
  for (const name of ['A', 'OpenAction', 'PA', 'Next'])
    if (actsOut(find(object.get(PDFName.of(name))))) object.delete(PDFName.of(name));
  const isAction = actsOut(object);
  for (const [name, value] of object.entries()) {
    // Nothing refers to it any more, but it would stand in the file.
    if (isAction) object.delete(name);
    else quietObject(value, find);
  }
}

function quiet({ context }: PDFDocument): void {
  const find = (object: PDFObject | undefined): PDFObject | undefined =>
    object === undefined ? undefined : context.lookup(object);
  for (const [, object] of context.enumerateIndirectObjects()) quietObject(object, find);
}

async function withMark(bytes: Uint8Array, watermark: string): Promise<Uint8Array> {
  const pdf = await PDFDocument.load(bytes, { updateMetadata: false });
  quiet(pdf);
  const forms = new Map<string, ReturnType<PDFDocument['context']['register']>>();
  for (const page of pdf.getPages()) {
    const quarters = (((page.getRotation().angle / 90) % 4) + 4) % 4;
    const sheet = page.getMediaBox();
    const [width, height] =
      quarters % 2 === 0 ? [sheet.width, sheet.height] : [sheet.height, sheet.width];
    const size = textSize(width, height);
    const { points, angle } = layOut(width, height, outlineOf(watermark, size).width);
    const key = size.toFixed(2);
    const form =
      forms.get(key) ??
      pdf.context.register(
        pdf.context.formXObject(
          [setFillingRgbColor(15 / 255, 43 / 255, 60 / 255), ...textOperators(watermark, size)],
          { BBox: pdf.context.obj([-size, -size, width * 4, size * 2]) },
        ),
      );
    forms.set(key, form);
    const formName = page.node.newXObject('Watermark', form);
    const stateName = page.node.newExtGState('WatermarkState', pdf.context.obj({ ca: 0.2 }));
    const turn = quarters * (Math.PI / 2) - angle;
    const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
    page.pushOperators(
      pushGraphicsState(),
      setGraphicsState(stateName),
      ...points.flatMap(([left, down]) => [
        pushGraphicsState(),
        concatTransformationMatrix(cos, sin, -sin, cos, ...onSheet(sheet, quarters, left, down)),
        drawObject(formName),
        popGraphicsState(),
      ]),
      popGraphicsState(),
    );
  }
  return pdf.save();
}

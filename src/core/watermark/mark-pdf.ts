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
import { colourOnPaper, contoursOf } from '@/core/watermark/burn';
import type { MarkLayer } from '@/core/watermark/layers';
import { layOut, wholePage, type Placement, type ShapedLayer } from '@/core/watermark/layout';
import { outlineOf, widthOf, type Contour } from '@/core/watermark/outline';

/** Polygons as drawing operators; y grows upwards on a sheet. */
function operatorsOf(contours: readonly Contour[]): PDFOperator[] {
  const drawn = contours.flatMap((contour) => {
    const points: PDFOperator[] = [moveTo(round(contour[0] ?? 0), round(-(contour[1] ?? 0)))];
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

/** A line, or a frame, that is drawn at some points of a page, whatever page of that size it is. */
type Drawing = {
  readonly layer: MarkLayer;
  readonly contours: readonly Contour[];
  readonly reach: number;
  readonly angle: number;
  readonly points: Placement['points'];
};

function drawingsOn(layers: readonly ShapedLayer[], width: number, height: number): Drawing[] {
  const { placements, frames } = layOut(layers, wholePage(width, height));
  return [
    ...placements.map(({ layer, glyphs, size, angle, points }) => ({
      layer,
      contours: outlineOf(glyphs, size),
      reach: widthOf(glyphs, size) + size * 2,
      angle,
      points,
    })),
    ...frames.map((frame) => ({
      layer: frame.layer,
      contours: contoursOf(frame),
      reach: width + height,
      angle: 0,
      points: [[0, 0]] as const,
    })),
  ];
}

/** A drawing as a form that every repetition shows again, and how strongly. */
function formOf(pdf: PDFDocument, { layer, contours, reach }: Drawing) {
  const { red, green, blue } = colourOnPaper(layer);
  const operators = [
    setFillingRgbColor(red / 255, green / 255, blue / 255),
    ...operatorsOf(contours),
  ];
  const box = pdf.context.obj([-reach, -reach, reach, reach]);
  return {
    form: pdf.context.register(pdf.context.formXObject(operators, { BBox: box })),
    state: pdf.context.register(pdf.context.obj({ ca: layer.strength / 100 })),
  };
}

/**
 * The document with the watermark drawn over every page, as outlines, so that it needs no font. What
 * acts by itself in it, or leads elsewhere, is taken out.
 *
 * Throws where it cannot be rewritten: viewers repair more.
 */
export async function markPdf(
  bytes: Uint8Array,
  layers: readonly ShapedLayer[],
): Promise<Uint8Array> {
  const pdf = await PDFDocument.load(bytes, { updateMetadata: false });
  quiet(pdf);
  const sheets = new Map<string, (Drawing & ReturnType<typeof formOf>)[]>();
  for (const page of pdf.getPages()) {
    const quarters = (((page.getRotation().angle / 90) % 4) + 4) % 4;
    const sheet = page.getMediaBox();
    const [width, height] =
      quarters % 2 === 0 ? [sheet.width, sheet.height] : [sheet.height, sheet.width];
    const key = `${width.toFixed(1)} ${height.toFixed(1)}`;
    const drawings =
      sheets.get(key) ??
      drawingsOn(layers, width, height).map((each) => ({ ...each, ...formOf(pdf, each) }));
    sheets.set(key, drawings);
    for (const { form, state, angle, points } of drawings) {
      const formName = page.node.newXObject('Watermark', form);
      const stateName = page.node.newExtGState('WatermarkState', state);
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
  }
  return pdf.save();
}

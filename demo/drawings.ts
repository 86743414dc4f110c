import {
  PDFDocument,
  StandardFonts,
  degrees,
  rgb,
  type PDFFont,
  type PDFPage,
} from '@cantoo/pdf-lib';
import { photographs } from './photographs';

const INK = rgb(0.06, 0.17, 0.24);
const SHEET: [number, number] = [842, 595]; // A4 landscape, in points
const PAGE: [number, number] = [595, 842];

export type Paper = {
  readonly reference: string;
  readonly title: string;
  readonly kind: 'lines' | 'arrangement' | 'midship' | 'list' | 'text' | 'photographs';
  readonly pages: number;
};

function frame(page: PDFPage, font: PDFFont, paper: Paper, number: number): void {
  const { width, height } = page.getSize();
  page.drawRectangle({
    x: 18,
    y: 18,
    width: width - 36,
    height: height - 36,
    borderColor: INK,
    borderWidth: 1,
  });
  page.drawRectangle({
    x: width - 258,
    y: 18,
    width: 240,
    height: 62,
    borderColor: INK,
    borderWidth: 1,
  });
  page.drawText('TERN & QUILL NAVAL ARCHITECTS', {
    x: width - 250,
    y: 64,
    size: 8,
    font,
    color: INK,
  });
  page.drawText(`Hull 412 coastal ferry: ${paper.title}`, {
    x: width - 250,
    y: 48,
    size: 9,
    font,
    color: INK,
  });
  page.drawText(`${paper.reference}   sheet ${String(number)} of ${String(paper.pages)}   1:100`, {
    x: width - 250,
    y: 30,
    size: 8,
    font,
    color: INK,
  });
}

/** Half-breadths of an invented hull: fuller amidships, finer at the ends. */
function halfBreadth(along: number, waterline: number): number {
  return (
    Math.sin(Math.PI * along) ** (0.6 + 0.5 * (1 - waterline)) * (0.35 + 0.65 * waterline ** 0.6)
  );
}

function drawLines(page: PDFPage, number: number): void {
  const { width } = page.getSize();
  for (let line = 1; line <= 10; line++) {
    const points = Array.from({ length: 61 }, (_, i) => {
      const along = i / 60;
      return `${String(60 + along * (width - 120))} ${String(-halfBreadth(along, line / 10) * (120 + number * 8))}`;
    });
    page.drawSvgPath(`M${points.join('L')}`, { x: 0, y: 200, borderColor: INK, borderWidth: 0.6 });
    page.drawSvgPath(`M${points.join('L')}`, {
      x: 0,
      y: 380 + line * 3,
      borderColor: INK,
      borderWidth: 0.4,
    });
  }
  for (let station = 0; station <= 20; station++) {
    const x = 60 + (station / 20) * (width - 120);
    page.drawLine({ start: { x, y: 120 }, end: { x, y: 540 }, thickness: 0.25, color: INK });
  }
}

function drawArrangement(page: PDFPage, font: PDFFont, number: number): void {
  const { width } = page.getSize();
  const spaces = [
    'Car deck',
    'Saloon',
    'Galley',
    'Engine room',
    'Pump room',
    'Mess',
    'Stores',
    'Wheelhouse',
  ];
  page.drawSvgPath(
    `M70 0L${String(width - 140)} 0C${String(width - 60)} 0 ${String(width - 60)} -150 ` +
      `${String(width - 140)} -150L70 -150C40 -150 40 0 70 0Z`,
    { x: 0, y: 260, borderColor: INK, borderWidth: 1 },
  );
  for (let i = 0; i < 8; i++) {
    const x = 80 + i * ((width - 240) / 8);
    page.drawRectangle({
      x,
      y: 275 + (i % 2) * 65,
      width: (width - 260) / 8,
      height: 58,
      borderColor: INK,
      borderWidth: 0.6,
    });
    page.drawText(spaces[(i + number) % 8] ?? '', {
      x: x + 6,
      y: 300 + (i % 2) * 65,
      size: 8,
      font,
      color: INK,
    });
  }
}

function drawMidship(page: PDFPage, font: PDFFont): void {
  const { width } = page.getSize();
  const middle = width / 2;
  for (const side of [-1, 1]) {
    page.drawSvgPath(
      `M0 0L${String(side * 190)} 0L${String(side * 190)} -230C${String(side * 190)} -330 ` +
        `${String(side * 120)} -360 0 -360Z`,
      { x: middle, y: 500, borderColor: INK, borderWidth: 1.2, rotate: degrees(0) },
    );
    for (let frame = 1; frame < 8; frame++)
      page.drawLine({
        start: { x: middle + side * frame * 24, y: 150 + frame * 6 },
        end: { x: middle + side * frame * 24, y: 500 },
        thickness: 0.4,
        color: INK,
      });
  }
  page.drawText('Plating 8 mm, frames 600 mm apart', {
    x: middle - 80,
    y: 520,
    size: 9,
    font,
    color: INK,
  });
}

const WORDS = (
  'The yard shall build the vessel to the drawings and to this specification. Where the two ' +
  'differ the stricter holds until the office has answered in writing. Steel is to be shot ' +
  'blasted and primed within four hours. Welds below the car deck are examined along their ' +
  'whole length. Trials take place in calm water at full load with the surveyor on board.'
).split(' ');

function drawText(page: PDFPage, font: PDFFont, bold: PDFFont, paper: Paper, number: number): void {
  const { height } = page.getSize();
  page.drawText(`${String(number)}  ${paper.title}`, {
    x: 60,
    y: height - 80,
    size: 15,
    font: bold,
    color: INK,
  });
  for (let line = 0; line < 34; line++) {
    const start = (line * 11 + number * 7) % WORDS.length;
    const text = [...WORDS, ...WORDS].slice(start, start + 12).join(' ');
    page.drawText(line % 9 === 0 ? `${String(number)}.${String(line / 9 + 1)}` : text, {
      x: 60,
      y: height - 115 - line * 17,
      size: 10.5,
      font: line % 9 === 0 ? bold : font,
      color: INK,
    });
  }
}

function drawList(page: PDFPage, font: PDFFont, number: number): void {
  const { height, width } = page.getSize();
  for (let row = 0; row < 36; row++) {
    const y = height - 70 - row * 18;
    page.drawText(String(number * 100 + row), { x: 40, y, size: 9, font, color: INK });
    page.drawText(
      [
        'Shell plating',
        'Car deck girders',
        'Ramp, bow',
        'Shaft line',
        'Ballast piping',
        'Switchboard',
        'Fire doors',
        'Mooring winch',
      ][row % 8] ?? '',
      { x: 90, y, size: 9, font, color: INK },
    );
    page.drawText(`${String(((row * 37 + number * 13) % 90) / 10 + 1)} t`, {
      x: width - 130,
      y,
      size: 9,
      font,
      color: INK,
    });
    page.drawLine({
      start: { x: 40, y: y - 5 },
      end: { x: width - 60, y: y - 5 },
      thickness: 0.25,
      color: INK,
    });
  }
}

/** One invented paper of the ferry project, as a PDF. */
export async function drawPaper(paper: Paper): Promise<Uint8Array> {
  if (paper.kind === 'photographs') return photographs(paper.title, paper.pages, paper.pages * 97);
  const pdf = await PDFDocument.create();
  pdf.setTitle(paper.title);
  pdf.setAuthor('Tern & Quill Naval Architects');
  const font = await pdf.embedFont(StandardFonts.Helvetica);
  const bold = await pdf.embedFont(StandardFonts.HelveticaBold);
  for (let number = 1; number <= paper.pages; number++) {
    const page = pdf.addPage(paper.kind === 'text' || paper.kind === 'list' ? PAGE : SHEET);
    if (paper.kind === 'lines') drawLines(page, number);
    if (paper.kind === 'arrangement') drawArrangement(page, font, number);
    if (paper.kind === 'midship') drawMidship(page, font);
    if (paper.kind === 'text') drawText(page, font, bold, paper, number);
    if (paper.kind === 'list') drawList(page, font, number);
    frame(page, font, paper, number);
  }
  return pdf.save();
}

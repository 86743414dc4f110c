import type { Content, ContentText, TableCell, TDocumentDefinitions } from 'pdfmake/interfaces';
import type { Block, Cell, Words } from '@/server/rendering/making/blocks';
import { facesFor, type Face, type Faces, type Lettering } from '@/server/rendering/making/faces';
import { printed } from '@/server/rendering/making/printer';

/** A4 with margins, in points. */
const MARGIN = 56;
const COLUMN = 595 - 2 * MARGIN;
const COLUMN_HEIGHT = 842 - 2 * MARGIN;
const SIZE = 10.5;
const HEADING_SIZES = [20, 16, 13.5, 12, 11, 10.5];
const LINES_SIZE = 9;
/** How far a picture is drawn apart where nothing says it, in points a px. */
const POINTS_PER_PX = 0.75;
const GREY = '#8a8f98';
/** Columns of one table: more would be narrower than a letter. */
const MOST_COLUMNS = 40;

function faceOf({ bold, italic, mono }: Words, isHeading: boolean): Face {
  if (mono === true) return 'mono';
  const isBold = isHeading || bold === true;
  if (italic === true) return isBold ? 'bold-italic' : 'italic';
  return isBold ? 'bold' : 'regular';
}

function* letteringOf(blocks: readonly Block[]): Generator<Lettering> {
  for (const block of blocks) {
    yield* ownLettering(block);
    for (const inner of blocksIn(block)) yield* letteringOf(inner);
  }
}

/** The letters of a block itself. */
function* ownLettering(block: Block): Generator<Lettering> {
  if (block.kind === 'paragraph' || block.kind === 'heading')
    for (const words of block.words)
      yield { text: words.text, face: faceOf(words, block.kind === 'heading') };
  if (block.kind === 'lines') yield { text: block.text, face: 'mono' };
  // Each item has a number or a dot before it.
  if (block.kind === 'list') yield { text: '0123456789.•', face: 'regular' };
}

/** The blocks that stand in a block. */
function blocksIn(block: Block): readonly (readonly Block[])[] {
  if (block.kind === 'list') return block.items;
  if (block.kind === 'quote') return [block.blocks];
  return block.kind === 'table' ? block.rows.flat().map((cell) => cell.blocks) : [];
}

/** Text of one look as pieces that each have a font. A new line begins where one is asked for. */
function inlines(faces: Faces, words: Words, isHeading: boolean): ContentText[] {
  const face = faceOf(words, isHeading);
  const decoration = [
    ...(words.underlined === true ? (['underline'] as const) : []),
    ...(words.struck === true ? (['lineThrough'] as const) : []),
  ];
  const look = {
    ...(decoration.length === 0 ? {} : { decoration }),
    ...(words.set === 'raised' ? { sup: true } : {}),
    ...(words.set === 'lowered' ? { sub: true } : {}),
  };
  return words.text
    .split('\n')
    .flatMap((line, i) => [
      ...(i === 0 ? [] : [{ text: '\n' }]),
      ...faces.split({ text: line, face }).map((piece) => ({ ...piece, ...look })),
    ]);
}

function paragraph(faces: Faces, words: readonly Words[], level: number | null): ContentText {
  const text = words.flatMap((each) => inlines(faces, each, level !== null));
  if (level === null) return { text, margin: [0, 0, 0, 7] };
  const fontSize = HEADING_SIZES[level - 1] ?? SIZE;
  const title = words.map((each) => each.text).join('');
  return {
    text,
    fontSize,
    margin: [0, fontSize * 0.6, 0, 5],
    headlineLevel: level,
    ...(level <= 3 ? { outline: true, outlineText: title } : {}),
  };
}

/** Lines as they stand: each is broken where it does not fit, nothing in it is drawn together. */
function lines(faces: Faces, text: string): Content {
  return {
    stack: text.split('\n').map((line) => ({
      text:
        line === '' ? ' ' : faces.split({ text: line, face: 'mono' }).map((each) => ({ ...each })),
      fontSize: LINES_SIZE,
      preserveLeadingSpaces: true,
    })),
    margin: [0, 0, 0, 7],
  };
}

/** Where the cells of a table stand, so that none lies on another; what one takes besides is empty. */
function placed(faces: Faces, rows: readonly (readonly Cell[])[], columns: number): TableCell[][] {
  const body = rows.map(() => Array.from<TableCell | undefined>({ length: columns }));
  const isFree = (x: number, y: number): boolean => body[y]?.[x] === undefined;
  rows.forEach((row, y) => {
    let x = 0;
    for (const cell of row) {
      while (x < columns && !isFree(x, y)) x++;
      if (x >= columns) break;
      const colSpan = Math.min(cell.columns, columns - x);
      const rowSpan = Math.min(cell.rows, rows.length - y);
      for (const under of body.slice(y, y + rowSpan)) under.splice(x, colSpan, ...empty(colSpan));
      body[y]?.splice(x, 1, {
        colSpan,
        rowSpan,
        stack: cell.blocks.map((block) => contentOf(faces, block)),
      });
      x += colSpan;
    }
  });
  return body.map((row) => Array.from({ length: columns }, (_, x) => row[x] ?? {}));
}

function empty(cells: number): TableCell[] {
  return Array.from({ length: cells }, () => ({}));
}

function tableOf(faces: Faces, rows: readonly (readonly Cell[])[], headings: number): Content {
  const wide = rows.map((row) => row.reduce((sum, cell) => sum + cell.columns, 0));
  const columns = Math.min(Math.max(1, ...wide), MOST_COLUMNS);
  const body = placed(faces, rows, columns);
  return {
    table: { body, headerRows: Math.min(headings, rows.length), widths: widths(columns) },
    layout: {
      hLineColor: () => GREY,
      vLineColor: () => GREY,
      hLineWidth: () => 0.5,
      vLineWidth: () => 0.5,
      fillColor: (row) => (row < headings ? '#eef0f3' : null),
    },
    margin: [0, 2, 0, 9],
  };
}

/** Few columns are as wide as what is in them; many share the width, so that none falls off the page. */
function widths(columns: number): (string | number)[] {
  return Array.from({ length: columns }, () => (columns <= 4 ? 'auto' : '*'));
}

function contentOf(faces: Faces, block: Block): Content {
  switch (block.kind) {
    case 'paragraph':
      return paragraph(faces, block.words, null);
    case 'heading':
      return paragraph(faces, block.words, block.level);
    case 'lines':
      return lines(faces, block.text);
    case 'quote':
      return {
        stack: block.blocks.map((each) => contentOf(faces, each)),
        margin: [18, 0, 0, 4],
        color: '#444a54',
      };
    case 'list':
      return listOf(faces, block.items, block.first);
    case 'table':
      return tableOf(faces, block.rows, block.headings);
    case 'picture':
      return {
        image: dataUrl(block.bytes),
        fit: [
          Math.min(COLUMN, block.width * POINTS_PER_PX),
          Math.min(COLUMN_HEIGHT, block.height * POINTS_PER_PX),
        ],
        margin: [0, 2, 0, 9],
      };
    case 'rule':
      return {
        canvas: [
          { type: 'line', x1: 0, y1: 0, x2: COLUMN, y2: 0, lineWidth: 0.5, lineColor: GREY },
        ],
        margin: [0, 4, 0, 8],
      };
  }
}

/** Numbers and dots are text of ours: those that the layout draws have fonts of its own. */
function listOf(faces: Faces, items: readonly Block[][], first: number | null): Content {
  return {
    stack: items.map((item, i) => ({
      columns: [
        {
          width: 20,
          text: faces
            .split({ text: first === null ? '•' : `${String(first + i)}.`, face: 'regular' })
            .map((each) => ({ ...each })),
        },
        { width: '*', stack: item.map((each) => contentOf(faces, each)) },
      ],
    })),
    margin: [6, 0, 0, 2],
  };
}

function dataUrl(bytes: Uint8Array): string {
  const type = bytes[0] === 0xff ? 'jpeg' : 'png';
  return `data:image/${type};base64,${Buffer.from(bytes).toString('base64')}`;
}

/** A text as the pages of a PDF, on A4, with its headings as outline. */
export async function flowPages(blocks: readonly Block[]): Promise<Uint8Array> {
  const shown: readonly Block[] =
    blocks.length > 0 ? blocks : [{ kind: 'paragraph', words: [{ text: ' ' }] }];
  const faces = await facesFor([{ text: ' .', face: 'regular' }, ...letteringOf(shown)]);
  const usual = faces.split({ text: '.', face: 'regular' })[0]?.font ?? '';
  const definition: TDocumentDefinitions = {
    pageSize: 'A4',
    pageMargins: MARGIN,
    defaultStyle: { font: usual, fontSize: SIZE, lineHeight: 1.15 },
    content: shown.map((block) => contentOf(faces, block)),
    // A heading stays with what it heads.
    pageBreakBefore: (node, rest) =>
      node.headlineLevel !== undefined && rest.getFollowingNodesOnPage().length === 0,
  };
  return printed(definition, faces.fonts);
}

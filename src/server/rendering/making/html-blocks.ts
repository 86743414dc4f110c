import { parseDocument } from 'htmlparser2';
import type { Block, Cell, Words } from '@/server/rendering/making/blocks';
import { smallPicture } from '@/server/rendering/making/small-picture';

// What texts are turned into before they are laid out: a page of HTML without styles, scripts or
// anything that has to be fetched.

type Node = ReturnType<typeof parseDocument>['children'][number];
type Element = Extract<Node, { readonly attribs: unknown }>;
type Look = Omit<Words, 'text'>;

/** Levels within levels that are followed: deeper ones are left out. */
const DEEPEST = 40;
const LOOKS: Readonly<Record<string, Look>> = {
  strong: { bold: true },
  b: { bold: true },
  th: { bold: true },
  em: { italic: true },
  i: { italic: true },
  u: { underlined: true },
  a: { underlined: true },
  s: { struck: true },
  del: { struck: true },
  code: { mono: true },
  sup: { set: 'raised' },
  sub: { set: 'lowered' },
};
/** What stands on lines of its own, and is nothing besides. */
const STACKED = new Set(['p', 'div', 'section', 'dl', 'dt', 'dd']);
const LEFT_OUT = new Set(['script', 'style', 'head', 'title', 'template', 'iframe', 'object']);

type Text = Extract<Node, { readonly data: string }>;

function isText(node: Node): node is Text {
  return node.nodeType === 3;
}

function isElement(node: Node): node is Element {
  return 'attribs' in node;
}

function textIn(node: Node): string {
  if (isText(node)) return node.data;
  return 'children' in node ? node.children.map((each) => textIn(each)).join('') : '';
}

/** The words of nodes that stand in a line; what stands on lines of its own is told apart. */
class Line {
  readonly #words: Words[] = [];

  add(text: string, look: Look): void {
    const shown = text.replaceAll(/[ \t\r\n]+/g, ' ');
    if (shown !== '') this.#words.push({ ...look, text: shown });
  }

  breakHere(): void {
    this.#words.push({ text: '\n' });
  }

  /** What was added, and begins anew; `null`: nothing that shows. */
  take(): Words[] | null {
    const words = this.#words.splice(0);
    return words.some(({ text }) => text.trim() !== '') ? words : null;
  }
}

function levelOf(name: string): number | null {
  const level = /^h([1-6])$/.exec(name)?.[1];
  return level === undefined ? null : Number(level);
}

async function blocksOf(nodes: readonly Node[], look: Look, depth: number): Promise<Block[]> {
  if (depth > DEEPEST) return [];
  const blocks: Block[] = [];
  const line = new Line();
  const end = (): void => {
    const words = line.take();
    if (words !== null) blocks.push({ kind: 'paragraph', words });
  };
  const inLine = async (node: Node, around: Look, deep: number): Promise<void> => {
    if (isText(node)) {
      line.add(node.data, around);
      return;
    }
    if (!isElement(node) || LEFT_OUT.has(node.name) || deep > DEEPEST) return;
    if (node.name === 'br') {
      line.breakHere();
      return;
    }
    const block = await blockOf(node, around, deep);
    if (block !== null) {
      end();
      blocks.push(...block);
      return;
    }
    const inside = { ...around, ...LOOKS[node.name] };
    for (const child of node.children) await inLine(child, inside, deep + 1);
  };
  for (const node of nodes) await inLine(node, look, depth);
  end();
  return blocks;
}

/** What stands on lines of its own; `null`: it stands in a line. */
async function blockOf(element: Element, look: Look, depth: number): Promise<Block[] | null> {
  const inside = (): Promise<Block[]> => blocksOf(element.children, look, depth + 1);
  const level = levelOf(element.name);
  if (level !== null) return asHeading(await inside(), level);
  if (STACKED.has(element.name)) return inside();
  switch (element.name) {
    case 'blockquote':
      return [{ kind: 'quote', blocks: await inside() }];
    case 'pre':
      return [{ kind: 'lines', text: textIn(element).replace(/\n$/, '') }];
    case 'hr':
      return [{ kind: 'rule' }];
    case 'ul':
    case 'ol':
      return [await listOf(element, look, depth)];
    case 'table':
      return [await tableOf(element, look, depth)];
    case 'img':
      return pictureOf(element);
    default:
      return null;
  }
}

function asHeading(blocks: readonly Block[], level: number): Block[] {
  return blocks.map((block) =>
    block.kind === 'paragraph' ? { kind: 'heading', level, words: block.words } : block,
  );
}

async function listOf(element: Element, look: Look, depth: number): Promise<Block> {
  const items: Block[][] = [];
  for (const child of element.children)
    if (isElement(child)) items.push(await blocksOf(child.children, look, depth + 1));
  const first = Number(element.attribs['start'] ?? 1);
  return { kind: 'list', first: element.name === 'ol' ? first || 1 : null, items };
}

function rowsIn(element: Element): readonly { readonly row: Element; readonly isHead: boolean }[] {
  return element.children
    .filter(isElement)
    .flatMap((child) =>
      child.name === 'tr'
        ? [{ row: child, isHead: false }]
        : rowsIn(child).map(({ row }) => ({ row, isHead: child.name === 'thead' })),
    );
}

/** How many columns or rows a cell takes, within what a page can have. */
function span(text: string | undefined): number {
  const count = Number(text ?? 1);
  return Number.isInteger(count) && count >= 1 ? Math.min(count, 100) : 1;
}

async function tableOf(element: Element, look: Look, depth: number): Promise<Block> {
  const found = rowsIn(element);
  const rows: Cell[][] = [];
  for (const { row } of found) {
    const cells: Cell[] = [];
    for (const cell of row.children.filter(isElement))
      cells.push({
        blocks: await blocksOf(cell.children, { ...look, ...LOOKS[cell.name] }, depth + 1),
        columns: span(cell.attribs['colspan']),
        rows: span(cell.attribs['rowspan']),
      });
    rows.push(cells);
  }
  return { kind: 'table', headings: found.filter(({ isHead }) => isHead).length, rows };
}

/** A picture that is in the text itself; one that lies elsewhere is named, and never fetched. */
async function pictureOf(element: Element): Promise<Block[]> {
  const [, base64] = /^data:image\/[\w.+-]+;base64,(.+)$/s.exec(element.attribs['src'] ?? '') ?? [];
  const picture = base64 === undefined ? null : await smallPicture(Buffer.from(base64, 'base64'));
  if (picture !== null) return [{ kind: 'picture', ...picture }];
  const text = element.attribs['alt']?.trim() ?? '';
  return [
    { kind: 'paragraph', words: [{ text: `[${text === '' ? 'picture' : text}]`, italic: true }] },
  ];
}

/** The blocks of a page of HTML. */
export async function htmlBlocks(html: string): Promise<Block[]> {
  return blocksOf(parseDocument(html).children, {}, 0);
}

import { parseDocument } from 'htmlparser2';
import JSZip from 'jszip';
import { ContentError } from '@/core/pages/errors';
import { needSmallArchive } from '@/server/rendering/making/archive';

// What is read of a PowerPoint file (ISO/IEC 29500-1, 19): texts, tables and pictures, each where it
// stands. Charts, drawings and movements are not shown.

type Node = ReturnType<typeof parseDocument>['children'][number];
type Element = Extract<Node, { readonly attribs: unknown }>;

/** English Metric Units of a point. */
const EMU = 12_700;
const MOST_SLIDES = 2_000;
const DEEPEST = 12;

/** Where something stands on a slide, in points from its top left. */
export type Place = {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
};
export type SlideText = {
  readonly text: string;
  readonly size: number;
  readonly bold: boolean;
};
export type SlideItem =
  | { readonly kind: 'text'; readonly place: Place; readonly lines: readonly SlideText[] }
  | { readonly kind: 'table'; readonly place: Place; readonly rows: readonly string[][] }
  | { readonly kind: 'picture'; readonly place: Place; readonly bytes: Uint8Array };
export type Slides = {
  readonly width: number;
  readonly height: number;
  readonly slides: readonly (readonly SlideItem[])[];
};

const TITLE = 'title';
const SIZES: Readonly<Record<string, number>> = { title: 32, ctrTitle: 36, subTitle: 22 };
const USUAL_SIZE = 18;

function isElement(node: Node): node is Element {
  return 'attribs' in node;
}

function children(element: Element | undefined, name: string): Element[] {
  return (element?.children ?? []).filter(isElement).filter((each) => each.name === name);
}

function at(element: Element | undefined, ...names: readonly string[]): Element | undefined {
  return names.reduce<Element | undefined>((found, name) => children(found, name)[0], element);
}

function all(element: Element | undefined, name: string): Element[] {
  return (element?.children ?? [])
    .filter(isElement)
    .flatMap((each) => (each.name === name ? [each] : all(each, name)));
}

function textIn(node: Node): string {
  if ('data' in node) return node.data;
  return 'children' in node ? node.children.map(textIn).join('') : '';
}

function numberOf(element: Element | undefined, name: string): number {
  const value = Number(element?.attribs[name]);
  return Number.isFinite(value) ? value : 0;
}

/** A file's parts, read as they are asked for. */
async function openParts(bytes: Uint8Array) {
  needSmallArchive(bytes);
  const zip = await JSZip.loadAsync(bytes).catch((cause: unknown) => {
    throw new ContentError('FILE_DAMAGED', { cause });
  });
  const root = async (name: string): Promise<Element | undefined> => {
    const text = await zip.file(name)?.async('string');
    if (text === undefined) return undefined;
    return parseDocument(text, { xmlMode: true }).children.find(isElement);
  };
  /** What a part names, by the ids it has for it; what lies outside of the file is not among them. */
  const relations = async (name: string): Promise<ReadonlyMap<string, string>> => {
    const folder = name.slice(0, name.lastIndexOf('/'));
    const file = name.slice(folder.length + 1);
    const found = await root(`${folder}/_rels/${file}.rels`);
    const inside = children(found, 'Relationship').filter(
      ({ attribs }) => attribs['TargetMode'] !== 'External',
    );
    return new Map(
      inside.map(({ attribs }) => [
        attribs['Id'] ?? '',
        new URL(attribs['Target'] ?? '', `file:///${folder}/`).pathname.slice(1),
      ]),
    );
  };
  return { root, relations, bytes: (name: string) => zip.file(name)?.async('uint8array') };
}

type Parts = Awaited<ReturnType<typeof openParts>>;

function placeOf(frame: Element | undefined): Place | null {
  const [off, ext] = [at(frame, 'a:off'), at(frame, 'a:ext')];
  if (off === undefined || ext === undefined) return null;
  return {
    left: numberOf(off, 'x') / EMU,
    top: numberOf(off, 'y') / EMU,
    width: numberOf(ext, 'cx') / EMU,
    height: numberOf(ext, 'cy') / EMU,
  };
}

type Placeholder = { readonly type: string; readonly index: string };

function placeholderOf(shape: Element): Placeholder | null {
  const found = at(shape, 'p:nvSpPr', 'p:nvPr', 'p:ph');
  if (found === undefined) return null;
  return { type: found.attribs['type'] ?? 'body', index: found.attribs['idx'] ?? '' };
}

/** Where the layout of a slide puts what the slide itself gives no place. */
function placesIn(layout: Element | undefined): (wanted: Placeholder) => Place | null {
  const shapes = all(layout, 'p:sp').flatMap((shape) => {
    const holder = placeholderOf(shape);
    const place = placeOf(at(shape, 'p:spPr', 'a:xfrm'));
    return holder === null || place === null ? [] : [{ holder, place }];
  });
  return ({ type, index }) =>
    (
      shapes.find(({ holder }) => holder.index === index && index !== '') ??
      shapes.find(({ holder }) => holder.type === type)
    )?.place ?? null;
}

function linesOf(body: Element | undefined, usual: number): SlideText[] {
  return children(body, 'a:p').map((paragraph) => {
    const runs = paragraph.children.filter(isElement);
    const first = runs.map((run) => at(run, 'a:rPr')).find((found) => found !== undefined);
    const text = runs
      .map((run) => (run.name === 'a:br' ? '\n' : all(run, 'a:t').map(textIn).join('')))
      .join('');
    const bullet = Number(at(paragraph, 'a:pPr')?.attribs['lvl'] ?? 0);
    return {
      text: `${'    '.repeat(bullet)}${text}`,
      size: numberOf(first, 'sz') / 100 || usual,
      bold: first?.attribs['b'] === '1',
    };
  });
}

/** What the items of a slide are looked up in. */
type Around = {
  readonly layout: (wanted: Placeholder) => Place | null;
  readonly picture: (id: string) => Promise<Uint8Array | undefined>;
};

async function slideItems(
  tree: Element | undefined,
  around: Around,
  depth = 0,
): Promise<SlideItem[]> {
  const items: SlideItem[] = [];
  if (depth > DEEPEST || tree === undefined) return items;
  for (const element of tree.children.filter(isElement))
    items.push(
      ...(element.name === 'p:grpSp'
        ? await slideItems(element, around, depth + 1)
        : await itemsOf(element, around)),
    );
  return items;
}

async function itemsOf(element: Element, { layout, picture }: Around): Promise<SlideItem[]> {
  const place = placeOf(at(element, 'p:spPr', 'a:xfrm') ?? at(element, 'p:xfrm'));
  if (element.name === 'p:sp') return textItem(element, place, layout);
  if (place === null) return [];
  if (element.name === 'p:graphicFrame') return tableItem(element, place);
  if (element.name !== 'p:pic') return [];
  const bytes = await picture(at(element, 'p:blipFill', 'a:blip')?.attribs['r:embed'] ?? '');
  return bytes === undefined ? [] : [{ kind: 'picture', place, bytes }];
}

function textItem(
  shape: Element,
  own: Place | null,
  layout: (wanted: Placeholder) => Place | null,
): SlideItem[] {
  const holder = placeholderOf(shape);
  const place = own ?? (holder === null ? null : layout(holder));
  const lines = linesOf(at(shape, 'p:txBody'), SIZES[holder?.type ?? ''] ?? USUAL_SIZE);
  if (place === null || lines.every(({ text }) => text.trim() === '')) return [];
  const isTitle = holder?.type === TITLE || holder?.type === 'ctrTitle';
  return [
    {
      kind: 'text',
      place,
      lines: isTitle ? lines.map((line) => ({ ...line, bold: true })) : lines,
    },
  ];
}

function tableItem(frame: Element, place: Place): SlideItem[] {
  const rows = all(frame, 'a:tr').map((row) =>
    children(row, 'a:tc').map((cell) =>
      all(cell, 'a:p')
        .map((paragraph) => all(paragraph, 'a:t').map(textIn).join(''))
        .join('\n'),
    ),
  );
  return rows.length === 0 ? [] : [{ kind: 'table', place, rows }];
}

async function readSlide(parts: Parts, name: string): Promise<SlideItem[] | null> {
  const slide = await parts.root(name);
  if (slide === undefined) throw new ContentError('FILE_DAMAGED');
  if (slide.attribs['show'] === '0') return null;
  const relations = await parts.relations(name);
  const layoutName = [...relations.values()].find((each) => each.includes('/slideLayouts/'));
  const layout = layoutName === undefined ? undefined : await parts.root(layoutName);
  return slideItems(at(slide, 'p:cSld', 'p:spTree'), {
    layout: placesIn(layout),
    picture: async (id) => parts.bytes(relations.get(id) ?? ''),
  });
}

/**
 * The slides of a PowerPoint file in their order, without those that are hidden. Nothing that lies
 * elsewhere is fetched, no macro is run.
 *
 * @throws ContentError `FILE_DAMAGED`, `FILE_UNPACKS_TOO_FAR`, `FILE_TOO_LONG`
 */
export async function readSlides(bytes: Uint8Array): Promise<Slides> {
  const parts = await openParts(bytes);
  const name = 'ppt/presentation.xml';
  const presentation = await parts.root(name);
  const size = at(presentation, 'p:sldSz');
  if (presentation === undefined || size === undefined) throw new ContentError('FILE_DAMAGED');
  const relations = await parts.relations(name);
  const listed = children(at(presentation, 'p:sldIdLst'), 'p:sldId');
  if (listed.length > MOST_SLIDES) throw new ContentError('FILE_TOO_LONG');
  const slides: SlideItem[][] = [];
  for (const { attribs } of listed) {
    const slide = await readSlide(parts, relations.get(attribs['r:id'] ?? '') ?? '');
    if (slide !== null) slides.push(slide);
  }
  return { width: numberOf(size, 'cx') / EMU, height: numberOf(size, 'cy') / EMU, slides };
}

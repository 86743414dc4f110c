/** What a line of a watermark can say about the open it stands on. */
export const PIECES = [
  'name',
  'address',
  'organisation',
  'date',
  'time',
  'network',
  'device',
  'title',
  'reference',
  'version',
  'marking',
  'folder',
  'dispatch',
  'page',
  'copy',
] as const;
export type Piece = (typeof PIECES)[number];

/** What an attribute of a document is written as: `{attribute:Project}`. */
const ATTRIBUTE = 'attribute:';

/** One part of a line: words as they are, or a piece by its name. */
export type LinePart =
  | { readonly kind: 'words'; readonly text: string }
  | { readonly kind: 'piece'; readonly name: string };

const BRACES = /\{([^{}]*)\}/g;

function isPiece(name: string): name is Piece {
  return (PIECES as readonly string[]).includes(name);
}

/** The attribute that a piece stands for; null: it is one of the others. */
export function attributeOf(name: string): string | null {
  return name.startsWith(ATTRIBUTE) && name.length > ATTRIBUTE.length
    ? name.slice(ATTRIBUTE.length)
    : null;
}

/** The name of the piece that stands for an attribute. */
export function attributePiece(attribute: string): string {
  return `${ATTRIBUTE}${attribute}`;
}

/** A line taken apart into words and pieces, in order. */
export function partsOf(line: string): LinePart[] {
  return line
    .split(/(\{[^{}]*\})/)
    .filter((text) => text !== '')
    .map((text) =>
      text.startsWith('{') && text.endsWith('}')
        ? { kind: 'piece', name: text.slice(1, -1) }
        : { kind: 'words', text },
    );
}

/** The line that parts come to; braces in words would be taken for a piece, so they are left out. */
export function lineOf(parts: readonly LinePart[]): string {
  return parts
    .map((part) => (part.kind === 'piece' ? `{${part.name}}` : part.text.replaceAll(/[{}]/g, '')))
    .join('');
}

/** The names in braces that are no pieces, in order, so that a form can point at them. */
export function unknownPieces(line: string): string[] {
  return Array.from(line.matchAll(BRACES), ([, name = '']) => name).filter(
    (name) => !isPiece(name) && attributeOf(name) === null,
  );
}

/** What pieces are filled with; one that is absent is filled in later, or not at all. */
export type PieceValues = Readonly<Partial<Record<Piece, string>>> & {
  readonly attributes?: Readonly<Record<string, string>>;
};

function valueOf(name: string, values: PieceValues): string | undefined {
  if (isPiece(name)) return values[name];
  const attribute = attributeOf(name);
  if (attribute === null || values.attributes === undefined) return undefined;
  return Object.hasOwn(values.attributes, attribute) ? values.attributes[attribute] : '';
}

/**
 * The line with every piece filled in that there is a value for. What a piece is filled with is
 * never taken for a piece itself, now or when the rest is filled in: its braces become brackets.
 */
export function fillPieces(line: string, values: PieceValues): string {
  return line.replaceAll(BRACES, (whole, name: string) => {
    const value = valueOf(name, values);
    return value === undefined ? whole : value.replaceAll('{', '(').replaceAll('}', ')');
  });
}

/** The parts of a line that say something, and a separator between each two of them. */
export function tidyLine(line: string): string {
  return line
    .split(SEPARATOR.trim())
    .map((part) => part.replaceAll(/\s+/g, ' ').trim())
    .filter((part) => part !== '')
    .join(SEPARATOR);
}

/** Pieces that only some pages have: where they say nothing, what stands around them says nothing either. */
const SOMETIMES = /\{(copy|page)\}/;

/** A line as it is drawn: what nobody filled in says nothing, and no separator stands before nothing. */
export function asDrawn(line: string): string {
  const said = line
    .split(SEPARATOR)
    .map((part) => (SOMETIMES.test(part) ? '' : part.replaceAll(BRACES, '')));
  return tidyLine(said.join(SEPARATOR));
}

/** What stands between the parts of a line; a line too long for its place is broken there. */
export const SEPARATOR = ' · ';

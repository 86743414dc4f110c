import { isZone } from '@/core/base/zone-format';
import {
  MARK_COLOURS,
  MARK_CORNERS,
  MARK_LIMITS,
  MARK_MEDIA,
  MARK_PLACES,
  MAX_LAYERS,
  MAX_LINE,
  type MarkLayer,
  type Watermark,
} from '@/core/watermark/layers';
import { unknownPieces } from '@/core/watermark/pieces';

function isOneOf(list: readonly string[], value: unknown): boolean {
  return typeof value === 'string' && list.includes(value);
}

type Fields = Readonly<Record<string, unknown>>;

function lineProblem({ line }: Fields): string | null {
  if (typeof line !== 'string' || line.trim() === '') return 'a layer of a watermark says nothing';
  if (line.length > MAX_LINE)
    return `a line of a watermark has at most ${String(MAX_LINE)} characters`;
  const [unknown] = unknownPieces(line);
  return unknown === undefined ? null : `{${unknown}} is not a piece of a watermark`;
}

function limitProblem(fields: Fields): string | null {
  for (const name of Object.keys(MARK_LIMITS) as (keyof typeof MARK_LIMITS)[]) {
    const { min, max } = MARK_LIMITS[name];
    const value = fields[name];
    if (typeof value !== 'number' || !Number.isInteger(value) || value < min || value > max)
      return `the ${name} of a watermark is a whole number from ${String(min)} to ${String(max)}`;
  }
  return null;
}

const LISTS = {
  place: MARK_PLACES,
  on: MARK_MEDIA,
  colour: MARK_COLOURS,
  corner: MARK_CORNERS,
} as const;

function choiceProblem(fields: Fields): string | null {
  for (const name of Object.keys(LISTS) as (keyof typeof LISTS)[])
    if (!isOneOf(LISTS[name], fields[name]))
      return `the ${name} of a layer is one of: ${LISTS[name].join(', ')}`;
  if (fields['place'] === 'banner' && fields['on'] !== 'paper') return 'a banner is for paper';
  const { zone } = fields;
  return zone === null || (typeof zone === 'string' && isZone(zone))
    ? null
    : 'a layer names a time zone that is not known';
}

const KNOWN = new Set([...Object.keys(LISTS), ...Object.keys(MARK_LIMITS), 'line', 'zone']);

/** What keeps a value from being a layer of a watermark, in words; null: nothing. */
function layerProblem(value: unknown): string | null {
  if (typeof value !== 'object' || value === null || Array.isArray(value))
    return 'a layer of a watermark is an object';
  const fields = value as Fields;
  const extra = Object.keys(fields).find((name) => !KNOWN.has(name));
  if (extra !== undefined) return `a layer of a watermark has no “${extra.slice(0, 40)}”`;
  return choiceProblem(fields) ?? limitProblem(fields) ?? lineProblem(fields);
}

/** What keeps a value from being a watermark, in words; null: nothing, and it is one. */
export function watermarkProblem(value: unknown, most: number = MAX_LAYERS): string | null {
  if (!Array.isArray(value)) return 'a watermark is a list of layers';
  if (value.length > most) return `at most ${String(most)} layers, because they share a page`;
  for (const layer of value) {
    const problem = layerProblem(layer);
    if (problem !== null) return problem;
  }
  return null;
}

/** A value as the watermark it is. @returns null where it is none */
export function readWatermark(value: unknown): Watermark | null {
  return watermarkProblem(value) === null ? (value as readonly MarkLayer[]) : null;
}

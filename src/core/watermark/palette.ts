import type { Picture, Rgb } from '@/core/watermark/burn';

/** A picture of few colours: for each pixel, row by row from the top, which of them it has. */
export type PalettePicture = {
  readonly width: number;
  readonly height: number;
  readonly indexes: Uint8Array;
  readonly colours: readonly Rgb[];
};

/** Colours a page may have of its own: the rest of 256 is for what a mark makes of them. */
const MOST_COLOURS = 64;
/** So many different ones are looked at; a page with more is no page of few colours. */
const MOST_SEEN = 4_096;
/** How far a colour may be from the one that stands for it, in each part of 255: tried in this order. */
const NEAR = [0, 5, 9] as const;

const RED = (rgba: number): number => rgba & 255;
const GREEN = (rgba: number): number => (rgba >> 8) & 255;
const BLUE = (rgba: number): number => (rgba >> 16) & 255;

/**
 * The different colours of a picture, how often each stands there, and its pixels as runs of one
 * colour: most are like the one before.
 */
type Runs = {
  readonly colours: readonly number[];
  readonly counts: Uint32Array;
  readonly places: Uint16Array;
  readonly ends: Uint32Array;
  readonly length: number;
};

const SLOTS = 4 * MOST_SEEN;
const EMPTY = 0xffffffff;

/** Null: there are too many colours. A table of its own: this is done for two million pixels at a time. */
function runsOf(pixels: Uint32Array): Runs | null {
  const slots = new Uint32Array(SLOTS).fill(EMPTY);
  const placeAt = new Uint16Array(SLOTS);
  const colours: number[] = [];
  const counts = new Uint32Array(MOST_SEEN);
  const places = new Uint16Array(pixels.length);
  const ends = new Uint32Array(pixels.length);
  const size = pixels.length;
  let length = 0;
  for (let at = 0; at < size; length++) {
    const from = at;
    const pixel = pixels[at] ?? 0;
    do at++;
    while (at < size && pixels[at] === pixel);
    const colour = pixel & 0xffffff;
    let slot = (Math.imul(colour, 0x9e3779b1) >>> 16) % SLOTS;
    while (slots[slot] !== EMPTY && slots[slot] !== colour) slot = (slot + 1) % SLOTS;
    if (slots[slot] === EMPTY) {
      if (colours.length === MOST_SEEN) return null;
      slots[slot] = colour;
      placeAt[slot] = colours.push(colour) - 1;
    }
    const place = placeAt[slot] ?? 0;
    counts[place] = (counts[place] ?? 0) + at - from;
    places[length] = place;
    ends[length] = at;
  }
  return { colours, counts, places, ends, length };
}

function isNear(one: number, other: number, near: number): boolean {
  return (
    Math.abs(RED(one) - RED(other)) <= near &&
    Math.abs(GREEN(one) - GREEN(other)) <= near &&
    Math.abs(BLUE(one) - BLUE(other)) <= near
  );
}

/** Which colours stand for all of them, the most frequent first, and for each its own; null: it takes too many. */
function chooseColours(
  { colours, counts }: Runs,
  near: number,
): { readonly chosen: readonly number[]; readonly standsFor: Uint8Array } | null {
  const chosen: number[] = [];
  const standsFor = new Uint8Array(colours.length);
  const byCount = [...colours.keys()].sort(
    (one, other) => (counts[other] ?? 0) - (counts[one] ?? 0),
  );
  for (const place of byCount) {
    const colour = colours[place] ?? 0;
    let index = chosen.findIndex((each) => isNear(each, colour, near));
    if (index < 0) index = chosen.push(colour) - 1;
    if (chosen.length > MOST_COLOURS) return null;
    standsFor[place] = index;
  }
  return { chosen, standsFor };
}

/**
 * The same picture by its few colours, each within 9 of 255 of what it was in red, green and blue;
 * null where it takes more than 64. What the picture covers is taken to be opaque.
 */
export function fewColours({ width, height, rgba }: Picture): PalettePicture | null {
  const runs = runsOf(new Uint32Array(rgba.buffer, rgba.byteOffset, width * height));
  if (runs === null) return null;
  for (const near of NEAR) {
    const found = chooseColours(runs, near);
    if (found === null) continue;
    const colours = found.chosen.map((c) => ({ red: RED(c), green: GREEN(c), blue: BLUE(c) }));
    return { width, height, indexes: filled(runs, found.standsFor, width * height), colours };
  }
  return null;
}

/** Runs shorter than this are written one by one. */
const SHORT = 16;

function filled(
  { places, ends, length }: Runs,
  standsFor: Uint8Array,
  size: number,
): Uint8Array<ArrayBuffer> {
  const indexes = new Uint8Array(size);
  let from = 0;
  for (let run = 0; run < length; run++) {
    const to = ends[run] ?? 0;
    const index = standsFor[places[run] ?? 0] ?? 0;
    if (to - from > SHORT) indexes.fill(index, from, to);
    else for (let at = from; at < to; at++) indexes[at] = index;
    from = to;
  }
  return indexes;
}

/** The same picture pixel by pixel. */
export function asPicture({ width, height, indexes, colours }: PalettePicture): Picture {
  const bytes = Uint8Array.from(colours.flatMap(({ red, green, blue }) => [red, green, blue, 255]));
  const palette = new Uint32Array(bytes.buffer);
  const pixels = new Uint32Array(width * height);
  for (let at = 0; at < pixels.length; at++) pixels[at] = palette[indexes[at] ?? 0] ?? 0;
  return { width, height, rgba: new Uint8Array(pixels.buffer) };
}

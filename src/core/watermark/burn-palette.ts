import { inkOf, mix, type Ink, type Rgb, type Stamp } from '@/core/watermark/burn';
import type { Coverage } from '@/core/watermark/raster';
import type { PalettePicture } from '@/core/watermark/palette';

const MOST_COLOURS = 256;
/** The edge of a letter is as smooth as it looks from two steps on; more are used where there is room. */
const FEWEST_STEPS = 2;
const MOST_STEPS = 8;

type Layers = Stamp['inked'];

/** The different inks of a stamp, and which of them each of its lines has. */
function inksOf(inked: Layers): { readonly inks: readonly Ink[]; readonly inkOfLine: number[] } {
  const names: string[] = [];
  const inks: Ink[] = [];
  const inkOfLine = inked.map(({ layer }) => {
    const name = `${layer.colour} ${String(layer.strength)}`;
    const known = names.indexOf(name);
    if (known >= 0) return known;
    inks.push(inkOf(layer));
    return names.push(name) - 1;
  });
  return { inks, inkOfLine };
}

/** Every colour of a page, as it is and then under each step of each ink. */
function inkedColours(
  colours: readonly Rgb[],
  inks: readonly Ink[],
  steps: number,
): readonly Rgb[] {
  const under = (ink: Ink, step: number): Rgb[] =>
    colours.map(({ red, green, blue }) => {
      const pixel = Uint8Array.of(red, green, blue, 255);
      mix(pixel, 0, Math.round((255 * step) / steps), ink);
      return { red: pixel[0] ?? 0, green: pixel[1] ?? 0, blue: pixel[2] ?? 0 };
    });
  const marked = inks.flatMap((ink) =>
    Array.from({ length: steps }, (_each, i) => under(ink, i + 1)).flat(),
  );
  return [...colours, ...marked];
}

/**
 * What becomes of each index under each coverage of one ink: where the ink is there already the
 * stronger stays, where another is it gives way.
 */
function steppedBy(colours: number, ink: number, steps: number): Uint8Array {
  const key = `${String(colours)} ${String(ink)} ${String(steps)}`;
  const known = tables.get(key);
  if (known !== undefined) return known;
  const made = newTable(colours, ink, steps);
  if (tables.size >= MOST_TABLES) tables.clear();
  tables.set(key, made);
  return made;
}

/** Pages are alike: few tables serve most of them. */
const tables = new Map<string, Uint8Array>();
const MOST_TABLES = 64;

function newTable(colours: number, ink: number, steps: number): Uint8Array {
  const table = new Uint8Array(256 * MOST_COLOURS);
  const first = 1 + ink * steps;
  for (let alpha = 0; alpha < 256; alpha++) {
    const step = Math.round((alpha * steps) / 255);
    for (let index = 0; index < MOST_COLOURS; index++) {
      const state = Math.floor(index / colours);
      const wanted = first + step - 1;
      const isUnder = state >= first && state < first + steps;
      const next = step === 0 || (isUnder && state > wanted) ? state : wanted;
      table[alpha * MOST_COLOURS + index] = (index % colours) + next * colours;
    }
  }
  return table;
}

function inkAt(
  { width, height, indexes }: PalettePicture,
  { xs, ys, alphas }: Coverage,
  originX: number,
  originY: number,
  table: Uint8Array,
): void {
  for (let i = 0; i < xs.length; i++) {
    const x = originX + (xs[i] ?? 0);
    const y = originY + (ys[i] ?? 0);
    if (x < 0 || y < 0 || x >= width || y >= height) continue;
    const at = y * width + x;
    indexes[at] = table[(alphas[i] ?? 0) * MOST_COLOURS + (indexes[at] ?? 0)] ?? 0;
  }
}

/**
 * Burns a stamp into a picture of few colours, in place, and returns it with the colours it has then:
 * those that burning it pixel by pixel makes, with the edges of letters in fewer steps. Null where
 * page and inks together need more than 256; then nothing was changed.
 */
export function burnPalette(
  picture: PalettePicture,
  { crop, inked }: Stamp,
): PalettePicture | null {
  const { colours } = picture;
  const { inks, inkOfLine } = inksOf(inked);
  if (inks.length === 0) return picture;
  const room = Math.floor((MOST_COLOURS / colours.length - 1) / inks.length);
  if (room < FEWEST_STEPS) return null;
  const steps = Math.min(MOST_STEPS, room);
  const stepped = inks.map((_ink, i) => steppedBy(colours.length, i, steps));
  for (const [line, { coverage, points }] of inked.entries()) {
    const table = stepped[inkOfLine[line] ?? 0] ?? new Uint8Array(0);
    for (const [x, y] of points) inkAt(picture, coverage, x - crop.left, y - crop.top, table);
  }
  return { ...picture, colours: inkedColours(colours, inks, steps) };
}

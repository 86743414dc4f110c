import type fontkit from '@cantoo/fontkit';
import type { Glyph, OtherScripts } from '@/core/watermark/shape';
import {
  SCRIPT_FAMILIES,
  piecesOf,
  subsetsOf,
  unpacked,
  type Subset,
  type SubsetFor,
} from '@/server/rendering/font-files';

const WEIGHT = 600;
const EM = 1_000;
/** Files of one family are many and small; those in use are few. */
const MOST_OPEN = 40;

type Font = Extract<ReturnType<typeof fontkit.create>, { readonly unitsPerEm: number }>;

/** The glyphs of scripts that the watermark's own outlines lack, from fonts that ship with the product. */
export function createScriptFonts(): OtherScripts {
  let fonts: SubsetFor | null = null;
  const open = new Map<string, Promise<Font>>();

  const fontOf = async ({ file }: Subset): Promise<Font> => {
    const known = open.get(file) ?? opened(file);
    if (open.size >= MOST_OPEN) open.clear();
    open.set(file, known);
    return known;
  };

  return async (run, isRightToLeft) => {
    fonts ??= subsetsOf(SCRIPT_FAMILIES);
    const pieces = piecesOf(run, fonts);
    if (pieces === null) return null;
    const shaped = await Promise.all(
      pieces.map(async ({ text, subset }) => glyphsOf(await fontOf(subset), text, isRightToLeft)),
    );
    return (isRightToLeft ? shaped.reverse() : shaped).flat();
  };
}

async function opened(file: string): Promise<Font> {
  const { default: library } = await import('@cantoo/fontkit');
  const font = library.create(await unpacked(file));
  if (!('unitsPerEm' in font)) throw new Error(`${file} is a collection of fonts.`);
  return font.getVariation({ wght: WEIGHT });
}

function glyphsOf(font: Font, text: string, isRightToLeft: boolean): Glyph[] {
  const scale = EM / font.unitsPerEm;
  const { glyphs, positions } = font.layout(
    text,
    undefined,
    undefined,
    undefined,
    isRightToLeft ? 'rtl' : 'ltr',
  );
  return glyphs.map((glyph, i) => {
    const position = positions?.[i];
    return {
      advance: (position?.xAdvance ?? glyph.advanceWidth) * scale,
      x: (position?.xOffset ?? 0) * scale,
      y: (position?.yOffset ?? 0) * scale,
      path: glyph.path.scale(scale).toSVG(),
    };
  });
}

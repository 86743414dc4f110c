import { layersOn, fillLayers, type Watermark } from '@/core/watermark/layers';
import { shapeLayers } from '@/core/watermark/layout';
import type { Glyph, OtherScripts } from '@/core/watermark/shape';

/** A run of characters that the core has no outlines of, and its glyphs in the order they are seen in. */
export type CarriedRun = {
  readonly run: string;
  readonly isRightToLeft: boolean;
  readonly glyphs: readonly Glyph[];
};

/** Where a watermark is drawn: a file in the clear is read and printed at will. */
export type CarriedFor = 'screen' | 'paper' | 'file';

/**
 * All that a watermark needs from the fonts that ship with the service, so that it can be drawn where
 * those are not. Page numbers, which differ, are digits and drawn by the core.
 */
export async function glyphsToCarry(
  watermark: Watermark,
  on: CarriedFor,
  others: OtherScripts,
): Promise<CarriedRun[]> {
  const runs = new Map<string, CarriedRun>();
  const noting: OtherScripts = async (run, isRightToLeft) => {
    const glyphs = await others(run, isRightToLeft);
    if (glyphs !== null) runs.set(keyOf(run, isRightToLeft), { run, isRightToLeft, glyphs });
    return glyphs;
  };
  const layers = on === 'file' ? watermark : layersOn(watermark, on);
  const filled = fillLayers(layers, () => ({ page: '1' }));
  await shapeLayers(filled, noting);
  return [...runs.values()];
}

/** Glyphs from what was carried along. */
export function carriedScripts(runs: readonly CarriedRun[]): OtherScripts {
  const known = new Map(
    runs.map(({ run, isRightToLeft, glyphs }) => [keyOf(run, isRightToLeft), glyphs]),
  );
  return (run, isRightToLeft) => Promise.resolve(known.get(keyOf(run, isRightToLeft)) ?? null);
}

function keyOf(run: string, isRightToLeft: boolean): string {
  return `${isRightToLeft ? 'rtl' : 'ltr'} ${run}`;
}

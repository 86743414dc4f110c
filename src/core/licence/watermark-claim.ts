import { z } from 'zod';
import {
  MARK_COLOURS,
  MARK_CORNERS,
  MARK_LIMITS,
  MARK_MEDIA,
  MARK_PLACES,
} from '@/core/watermark/layers';

function within({ min, max }: { readonly min: number; readonly max: number }) {
  return z.number().int().min(min).max(max);
}

/** A layer with its pieces filled in: its line may be longer than one that is typed. */
const layer = z.object({
  place: z.enum(MARK_PLACES),
  on: z.enum(MARK_MEDIA),
  colour: z.enum(MARK_COLOURS),
  corner: z.enum(MARK_CORNERS),
  line: z.string().max(8_000),
  zone: z.string().max(64).nullable(),
  size: within(MARK_LIMITS.size),
  angle: within(MARK_LIMITS.angle),
  density: within(MARK_LIMITS.density),
  strength: within(MARK_LIMITS.strength),
});
/** A watermark in a signed statement. */
export const watermarkClaim = z.array(layer).max(64);

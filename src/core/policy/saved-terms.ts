import { DAY, HOUR } from '@/core/base/time';
import type { Conditions } from '@/core/policy/conditions';
import { DEFAULT_WATERMARK, type Watermark } from '@/core/watermark/layers';
import type { Right, Terms } from '@/core/policy/rights';

/** Terms kept under a name. Their end is a span, since they are used again and again. */
export type SavedTerms = {
  readonly rights: readonly Right[];
  /** Days from the dispatch on; `null`: no end. */
  readonly days: number | null;
  readonly prints: number | null;
  readonly watermark: Watermark;
  /** What else must hold; absent: nothing. */
  readonly conditions?: Conditions | undefined;
};

/** Where nobody chose saved terms: read, for thirty days. */
export const CAUTIOUS_TERMS: SavedTerms = {
  rights: ['read'],
  days: 30,
  prints: null,
  watermark: DEFAULT_WATERMARK,
};

/** The end so many days from `now`, on the hour. */
export function endAfter(now: number, days: number): number {
  return Math.ceil((now + days * DAY) / HOUR) * HOUR;
}

/** The terms that kept ones come to at `now`, ending on the hour. */
export function termsAt({ rights, days, prints, conditions }: SavedTerms, now: number): Terms {
  return {
    rights,
    from: null,
    until: days === null ? null : endAfter(now, days),
    prints,
    ...(conditions === undefined ? {} : { conditions }),
  };
}

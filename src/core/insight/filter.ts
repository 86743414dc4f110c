import type { StaffId } from '@/core/base/ids';

/** By what entries are looked for. The first five are counted with every entry; the others are ids. */
export const COUNTED_DIMENSIONS = ['kind', 'outcome', 'reason', 'place', 'organisation'] as const;
export const DIMENSIONS = [
  ...COUNTED_DIMENSIONS,
  'document',
  'recipient',
  'dispatch',
  'actor',
  'device',
  'version',
] as const;
export type Dimension = (typeof DIMENSIONS)[number];
/** Values of which an entry has one. */
export type Chosen<D extends Dimension = Dimension> = Readonly<
  Partial<Record<D, readonly string[]>>
>;

/**
 * What a list of entries is narrowed to: entries that have one of the values of every dimension in
 * `with`, and none of those in `without`. `from` and `to` are days, both inside, or moments of the
 * organisation's zone (`2026-03-03T14:00`). `own`: only what this member of staff answers for or
 * did.
 */
export type EntryFilter = {
  readonly with?: Chosen;
  readonly without?: Chosen;
  readonly from?: string | undefined;
  readonly to?: string | undefined;
  readonly own?: StaffId | undefined;
};
/** The moments at which it begins and ends, as the entries spell moments. */
export type Span = { readonly begins?: string | undefined; readonly ends?: string | undefined };

/** The day of a day or moment. */
export function dayOfText(text: string): string {
  return text.slice(0, 10);
}

import type { Watermark } from '@/core/watermark/layers';
import type { DoubtCode } from '@/core/compose/concerns';
import type { Sheet } from '@/core/compose/sheet';
import type { Delivery, DeliveryForm } from '@/core/policy/delivery';

/** How something is handed over. */
export type HandingOver = {
  readonly form: DeliveryForm;
  readonly delivery: Delivery;
  readonly titleOnCover: boolean;
  /** Whether the note stands in the mail; else only behind the link. */
  readonly noteInMail: boolean;
  readonly reason: string;
};

/** A doubt that was left as it is: with other rows it is asked about again. */
export type Waved = { readonly code: DoubtCode; readonly rows: readonly string[] };

/** A dispatch while it is being composed: nothing of it has to be whole or right yet. */
export type DraftBody = {
  readonly sheet: Sheet;
  readonly subject: string;
  readonly note: string;
  readonly watermark: Watermark;
  readonly way: HandingOver;
  /** When it is to leave; absent or `null`: as soon as it may. */
  readonly leavesAt?: number | null | undefined;
  /** What was left as it is, and for which rows. */
  readonly waved: readonly Waved[];
};

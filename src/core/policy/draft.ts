import type { DocumentId, GroupId, TermsId } from '@/core/base/ids';
import type { Delivery, DeliveryForm } from '@/core/policy/delivery';
import type { Terms } from '@/core/policy/rights';

/** How something is handed over. */
export type HandingOver = {
  readonly form: DeliveryForm;
  readonly delivery: Delivery;
  readonly titleOnCover: boolean;
  readonly openLink: boolean;
  readonly reason: string;
};

/** What was set for one address alone. */
export type OwnDraft = {
  readonly address: string;
  readonly name?: string | undefined;
  readonly organisation?: string | undefined;
  readonly terms?: Terms | null | undefined;
};

/** A dispatch while it is being composed: nothing of it has to be whole or right yet. */
export type DraftBody = {
  readonly documents: readonly DocumentId[];
  /** The addresses as they were typed. */
  readonly people: string;
  readonly own: readonly OwnDraft[];
  /** Groups addressed as such. */
  readonly groups?: readonly GroupId[] | undefined;
  readonly terms: Terms;
  readonly subject: string;
  readonly note: string;
  readonly watermark: string;
  /** Absent in drafts from before it was kept. */
  readonly way?: HandingOver | undefined;
  /** The saved terms that these are, as long as nothing of them was changed. */
  readonly kept?: TermsId | null | undefined;
};

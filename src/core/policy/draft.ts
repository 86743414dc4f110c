import type { DocumentId, GroupId } from '@/core/base/ids';
import type { Terms } from '@/core/policy/rights';

/** What was set for one address alone. */
export type OwnDraft = { readonly address: string; readonly name?: string | undefined; readonly organisation?: string | undefined; readonly terms?: Terms | null | undefined };

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
};

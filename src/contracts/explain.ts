import { z } from 'zod';
import { watermarkInput } from '@/contracts/watermark';
import type { Watermark } from '@/core/watermark/layers';
import { isId, type RecipientId } from '@/core/base/ids';
import { documentId } from '@/contracts/document';
import { draftTerms } from '@/contracts/draft';
import type { RefusalReason, RightVerdict } from '@/core/policy/decide';
import type { Change } from '@/core/policy/changes';
import type { Reason } from '@/core/policy/explain';
import type { Right } from '@/core/policy/rights';

const recipientId = z.custom<RecipientId>(
  (value) => typeof value === 'string' && isId('recipient', value),
  'no such person',
);

/**
 * A person and a document, and under which circumstances to look. What is left out is not asked
 * about; without a moment it is now.
 */
export const explainInput = z.object({
  document: documentId,
  recipient: recipientId,
  /** Somebody else, by address, to look at instead. */
  address: z.string().trim().max(320).nullish(),
  at: z.number().int().nullish(),
  network: z.string().trim().max(64).nullish(),
  country: z.string().trim().toUpperCase().max(2).nullish(),
  device: z.enum(['kept', 'visit']).nullish(),
});
/** Whose view of which document a page shows. */
export const seenPageInput = z.object({ id: documentId, recipient: recipientId });
export type ExplainInput = z.infer<typeof explainInput>;

/** Somebody, known or not, and what they would be given of a document, at another time or place too. */
export const supposeInput = explainInput.omit({ recipient: true, address: true }).extend({
  address: z.string().trim().min(1).max(320),
  name: z.string().max(120).default(''),
  terms: draftTerms,
});
export type SupposeInput = z.infer<typeof supposeInput>;

/** The first page as somebody would see it. `watermark`: as it is composed, pieces not filled in. */
export const previewPageInput = z.object({
  id: documentId,
  address: z.string().trim().max(320),
  name: z.string().max(120).default(''),
  organisation: z.string().max(120).default(''),
  watermark: watermarkInput,
  /** As it is read, or as it would be printed. */
  medium: z.enum(['screen', 'paper']).default('screen'),
  /** Dark: as on a page of light letters on dark. */
  ground: z.enum(['light', 'dark']).default('light'),
  at: z.number().int().nullish(),
  network: z.string().trim().max(64).nullish(),
  page: z.number().int().min(1).default(1),
  width: z.number().int().min(100).max(20_000).default(560),
  /** Which of the squares that the page is cut into; absent: the whole page. */
  column: z.number().int().min(0).max(20).optional(),
  row: z.number().int().min(0).max(20).optional(),
});
export type PreviewPageInput = z.infer<typeof previewPageInput>;

/** A rule in words that name it. */
export type NamedReason = Omit<Reason, 'changes'> & {
  readonly name: string;
  readonly setByName: string;
  /** Who changed the grant last, where that is the rule and somebody did. */
  readonly lastChange: { readonly by: string; readonly at: number } | null;
  /** Whether the rule is somebody's act that ended access. */
  readonly ended: boolean;
  readonly changes: readonly NamedChange[];
};
/** A change, with the name of the dispatch whose grant, or of the level whose ceiling it is. */
export type NamedChange = Change & { readonly name: string };
export type NamedWay = {
  readonly grant: string;
  readonly dispatch: { readonly id: string; readonly reference: string; readonly subject: string };
  readonly standing: 'live' | RefusalReason;
  readonly rights: readonly Right[];
  readonly from: number | null;
  readonly until: number | null;
  /**
   * What sets the end, where the grant itself does not: a ceiling by its name, the grant above, or
   * the time since the first open.
   */
  readonly endedBy:
    | { readonly kind: 'ceiling'; readonly name: string }
    | { readonly kind: 'above' | 'span' }
    | null;
  readonly conditions: readonly string[];
  readonly givenBy: string;
  readonly givenAt: number;
};
/** A document as somebody would be shown it, and why. */
export type SeenAs = {
  readonly explained: Explained;
  readonly document: {
    readonly id: string;
    readonly title: string;
    readonly reference: string;
    readonly pages: number;
  };
  readonly person: {
    readonly address: string;
    readonly name: string;
    readonly organisation: string;
  };
  /** What the dispatch puts on the pages, pieces not filled in; what levels require comes on top. */
  readonly watermark: Watermark;
};
export type Explained = {
  readonly now: number;
  /** Whether it tells of a moment that is over, as grants stood then. */
  readonly past: boolean;
  readonly person: string;
  readonly document: string;
  readonly opens: boolean;
  readonly reason: RefusalReason | null;
  readonly until: number | null;
  readonly why: NamedReason;
  readonly rights: readonly {
    readonly right: Right;
    readonly verdict: RightVerdict | null;
    readonly reason: NamedReason;
  }[];
  readonly ways: readonly NamedWay[];
  /** Whether the text of pages comes to them for a screen reader, although they may not copy it. */
  readonly readingAids: boolean;
};

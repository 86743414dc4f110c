import { z } from 'zod';
import { documentId } from '@/contracts/document';
import { recipientId } from '@/contracts/access';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import type { PageShown } from '@/core/insight/coverage';

/**
 * Whose opens of what are counted; absent: everybody's, of everything, ever. Days are both inside,
 * in the organisation's zone.
 */
export const opensInput = z.object({
  document: z.string().max(40).optional(),
  dispatch: z.string().max(40).optional(),
  recipient: z.string().max(40).optional(),
  organisation: z.string().max(120).optional(),
  from: z.iso.date().optional(),
  to: z.iso.date().optional(),
  /** Only those who never opened something they were given. */
  never: z.literal('only').optional(),
});
export type OpensInput = z.infer<typeof opensInput>;

/** One person and one document, whose reading is looked at. */
export const readingAsked = z.object({
  document: documentId,
  recipient: recipientId,
});
export type ReadingAsked = z.output<typeof readingAsked>;
/** Which pages were in view, open by open, the newest first. */
export type ReadingRecord = {
  readonly opens: readonly {
    readonly id: string;
    readonly openedAt: number;
    readonly device: string;
    readonly version: number;
    readonly pages: number;
    readonly shown: readonly PageShown[];
  }[];
};

/** How often one person opened one document. Days as `2026-11-25`; null: never. */
export type OpensCell = {
  readonly document: DocumentId;
  readonly opens: number;
  readonly refused: number;
  readonly first: string | null;
  readonly last: string | null;
};

export type OpensRow = {
  readonly recipient: RecipientId;
  readonly name: string;
  readonly address: string;
  readonly organisation: string;
  /** One for each document they were given or tried to open. */
  readonly cells: readonly OpensCell[];
  readonly opens: number;
  readonly refused: number;
  readonly first: string | null;
  readonly last: string | null;
  /** On which days they opened something, and how often. */
  readonly days: readonly { readonly day: string; readonly opens: number }[];
};

export type OpensPage = {
  readonly rows: readonly OpensRow[];
  /** People in all; the rows are the first of them. */
  readonly people: number;
  readonly documents: readonly {
    readonly id: DocumentId;
    readonly title: string;
    readonly reference: string;
  }[];
  readonly totals: {
    readonly opens: number;
    readonly openedBy: number;
    readonly refused: number;
    readonly refusedTo: number;
    readonly neverOpened: number;
  };
  /** First and last day that the plot spans. */
  readonly span: { readonly first: string; readonly last: string } | null;
  readonly zone: string;
  readonly names: {
    readonly document: string | null;
    readonly recipient: string | null;
    readonly dispatch: string | null;
  };
};

import { z } from 'zod';
import { isId, type ViewId } from '@/core/base/ids';
import { KINDS, type Kind } from '@/core/insight/kinds';
import { OUTCOMES, type Action, type Outcome } from '@/core/ledger/entry';

export const ledgerInput = z.object({
  document: z.string().max(40).optional(),
  recipient: z.string().max(40).optional(),
  dispatch: z.string().max(40).optional(),
  kind: z.enum(KINDS).optional(),
  outcome: z.enum(OUTCOMES).optional(),
  reason: z.string().max(60).optional(),
  place: z.string().max(120).optional(),
  organisation: z.string().max(120).optional(),
  /** First and last day, both inside, in the organisation's zone. */
  from: z.iso.date().optional(),
  to: z.iso.date().optional(),
  before: z.coerce.number().int().min(1).optional(),
});
export type LedgerInput = z.infer<typeof ledgerInput>;

const viewId = z.custom<ViewId>((value) => typeof value === 'string' && isId('view', value), 'no such view');
/** `query`: what stands behind the question mark of the view's address. */
export const keepViewInput = z.object({ name: z.string().trim().min(1, 'the view needs a name').max(60), query: z.string().max(1_000) });
export const viewInput = z.object({ id: viewId });
export type KeptView = { readonly id: ViewId; readonly name: string; readonly query: string };

export type LedgerRow = {
  readonly sequence: number;
  readonly occurredAt: string;
  readonly receivedAt: string;
  readonly action: Action;
  readonly outcome: Outcome;
  readonly reason: string | null;
  readonly rule: string | null;
  readonly who: string;
  readonly what: string;
  readonly document: string | null;
  readonly recipient: string | null;
  readonly dispatch: string | null;
  readonly place: string;
  readonly network: string;
  readonly detail: string;
  readonly hash: string;
  readonly previous: string;
};

export type FacetCount = { readonly value: string; readonly entries: number };

export type LedgerPage = {
  readonly rows: readonly LedgerRow[];
  readonly total: number;
  readonly size: number;
  readonly signedSize: number;
  readonly signedAt: number | null;
  /** The organisation's zone, in which days are counted. */
  readonly zone: string;
  /** First and last day of the whole ledger; `null` while it is empty. */
  readonly recorded: { readonly first: string; readonly last: string } | null;
  readonly days: readonly { readonly day: string; readonly granted: number; readonly refused: number }[];
  readonly facets: { readonly kinds: readonly { readonly value: Kind; readonly entries: number }[]; readonly reasons: readonly FacetCount[]; readonly places: readonly FacetCount[]; readonly organisations: readonly FacetCount[] };
  /** Spots of the places, `at` longitude and latitude in degrees, and how many entries have no place. */
  readonly map: { readonly spots: readonly { readonly place: string; readonly entries: number; readonly at: readonly [number, number] }[]; readonly unplaced: number };
  readonly views: readonly KeptView[];
  /** Names for the filters in force. */
  readonly names: { readonly document: string | null; readonly recipient: string | null; readonly dispatch: string | null };
  readonly older: number | null;
};

/** `checkpoints`: signed ones that were kept outside, one after another; empty: none. */
export const verifyInput = z.object({ checkpoints: z.string().max(200_000).default('') });
export type VerifyInput = z.infer<typeof verifyInput>;
/** What came of verifying the ledger. */
export type VerifyResult = {
  readonly entries: number;
  readonly checkpoints: number;
  readonly signed: number;
  /** How many entries a checkpoint from outside the database covers; null: none was at hand. */
  readonly witnessed: number | null;
  readonly backwards: number;
  readonly problems: readonly { readonly sequence: number; readonly detail: string }[];
};
/** A line of the answer: how many entries are done, or what came of it. */
export type VerifyLine = { readonly entries: number } | { readonly verification: VerifyResult };

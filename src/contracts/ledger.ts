import { z } from 'zod';
import { OUTCOMES, type Action, type Outcome } from '@/core/ledger/entry';

export const ledgerInput = z.object({
  document: z.string().max(40).optional(),
  recipient: z.string().max(40).optional(),
  outcome: z.enum(OUTCOMES).optional(),
  dispatch: z.string().max(40).optional(),
  before: z.coerce.number().int().min(1).optional(),
});
export type LedgerInput = z.infer<typeof ledgerInput>;

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

export type LedgerPage = {
  readonly rows: readonly LedgerRow[];
  readonly total: number;
  readonly size: number;
  readonly signedSize: number;
  readonly signedAt: number | null;
  /** Names for the filters in force. */
  readonly names: { readonly document: string | null; readonly recipient: string | null; readonly dispatch: string | null };
  readonly older: number | null;
};

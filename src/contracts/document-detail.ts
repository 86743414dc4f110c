import type { GrantRow } from '@/contracts/dispatch';
import type { DocumentId } from '@/core/base/ids';

/** One document with everybody it was given to. */
export type DocumentDetail = {
  readonly id: DocumentId;
  readonly reference: string;
  readonly title: string;
  readonly ownerName: string;
  readonly protectedAt: number;
  readonly revokedAt: number | null;
  readonly fileName: string;
  readonly pages: number;
  readonly bytes: number;
  readonly grants: readonly GrantRow[];
};

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
  readonly keyDestroyed: boolean;
  readonly fileName: string;
  readonly pages: number;
  readonly bytes: number;
  /** Whether the person who looks may dispatch or revoke it. */
  readonly mayChange: boolean;
  readonly grants: readonly GrantRow[];
};

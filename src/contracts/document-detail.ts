import type { ReadsOn } from '@/contracts/access';
import type { CeilingRow } from '@/contracts/ceiling';
import type { DefaultsRow } from '@/contracts/defaults';
import type { GrantRow } from '@/contracts/dispatch';
import type { Colleague } from '@/contracts/document';
import type { FolderRow } from '@/contracts/folder';
import type { MarkingRow } from '@/contracts/marking';
import type { DocumentId, FolderId, MarkingId, StaffId } from '@/core/base/ids';

/** Where a document sits, what it is marked, who answers for it. */
type Filed = {
  readonly folderId: FolderId | null;
  readonly markingId: MarkingId | null;
  readonly ownerId: StaffId;
  readonly deputyId: StaffId | null;
  readonly attributes: Readonly<Record<string, string>>;
};
export type VersionRow = {
  readonly number: number;
  readonly fileName: string;
  readonly pages: number;
  readonly bytes: number;
  readonly createdAt: number;
  readonly createdBy: string;
  /** Whether it opens now. */
  readonly isCurrent: boolean;
  /** When everybody who has the document was told of it; null: they were not. */
  readonly toldAt: number | null;
  readonly opens: number;
};

/** One document with everybody it was given to. */
export type DocumentDetail = {
  readonly id: DocumentId;
  readonly reference: string;
  readonly title: string;
  readonly ownerName: string;
  readonly filed: Filed;
  readonly folders: readonly FolderRow[];
  readonly markings: readonly MarkingRow[];
  readonly colleagues: readonly Colleague[];
  readonly versions: readonly VersionRow[];
  /** Changed files that wait for the viewer's answer. */
  readonly waiting: number;
  readonly protectedAt: number;
  readonly revokedAt: number | null;
  /** It was encrypted on its sender's machine: its content is not here. */
  readonly isLocal: boolean;
  readonly keyDestroyed: boolean;
  /** Whether its stored content is not what was stored. */
  readonly damaged: boolean;
  readonly fileName: string;
  readonly pages: number;
  readonly bytes: number;
  /** Whether the person who looks may dispatch or revoke it. */
  readonly mayChange: boolean;
  /** The ceilings that reach it, outermost first. */
  readonly ceilings: readonly CeilingRow[];
  /** What levels around it set beside, likewise. */
  readonly defaults: readonly DefaultsRow[];
  /** Who can open it now, by whatever route. */
  readonly reached: { readonly people: number; readonly unknown: boolean };
  /** Who would read on if it were revoked now; nobody, for whoever may not revoke it. */
  readonly readsOn: readonly ReadsOn[];
  readonly grants: readonly GrantRow[];
};

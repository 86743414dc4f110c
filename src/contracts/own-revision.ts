import type { RevisionId } from '@/core/base/ids';
import type { RevisionState } from '@/core/content/revision';

/** A changed file that somebody sent back, as they see it. */
export type OwnRevision = {
  readonly id: RevisionId;
  readonly fileName: string;
  readonly sentAt: number;
  readonly state: RevisionState;
  readonly answer: string;
};

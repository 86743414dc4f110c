import { z } from 'zod';
import { isId, type DocumentId, type DispatchId, type VersionId } from '@/core/base/ids';

export const versionId = z.custom<VersionId>(
  (value) => typeof value === 'string' && isId('version', value),
  'no such version',
);
/** What the browser read from a file's head: the file itself stays there. */
export const inspectInput = z.object({
  version: versionId,
  serviceUrl: z.string().max(1000),
  link: z.string().max(1000).nullable(),
});
export type InspectInput = z.infer<typeof inspectInput>;

/** What is known here of a protected file; `null` where it belongs to another service. */
export type FileFound = {
  readonly document: {
    readonly id: DocumentId;
    readonly reference: string;
    readonly title: string;
    readonly revoked: boolean;
  };
  readonly version: {
    readonly number: number;
    readonly current: boolean;
    readonly protectedAt: number;
    readonly bytes: number;
    readonly keyDestroyed: boolean;
    readonly recoverable: boolean;
  };
  /** The dispatch and person whose file it is, where its link says so. */
  readonly madeFor: {
    readonly dispatch: DispatchId;
    readonly reference: string;
    /** Whose; `null`: it was made for everybody it was sent to. */
    readonly address: string | null;
    readonly sentAt: number;
    readonly sentBy: string;
  } | null;
  readonly grants: readonly {
    readonly address: string;
    readonly state: 'live' | 'not-yet' | 'expired' | 'revoked' | 'blocked';
    readonly until: number | null;
  }[];
};

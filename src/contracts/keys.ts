import { z } from 'zod';
import { isId, type ConsentId, type DocumentId } from '@/core/base/ids';
import type { ConsentKind } from '@/core/policy/consent';
import { documentId } from '@/contracts/document';

/** Documents whose keys are destroyed in one act. */
const MOST_DESTROYED = 200;

export const recoveryKeyInput = z.object({ recoveryKey: z.string().max(4000) });
export const twoPeopleInput = z.object({ on: z.boolean() });
/** `proof`: SHA-256 of the first chunk of plain content, in hex: only who opened it can say it. */
export const drillInput = z.object({
  document: documentId,
  proof: z.string().regex(/^[0-9a-f]{64}$/),
});
export type DrillInput = z.infer<typeof drillInput>;

export const destroyKeysInput = z.object({
  documents: z
    .array(documentId)
    .min(1)
    .max(MOST_DESTROYED, `at most ${String(MOST_DESTROYED)} at a time`),
  typed: z.string().max(100),
  reason: z.string().trim().max(400).default(''),
});
export type DestroyKeysInput = z.infer<typeof destroyKeysInput>;
export type Destroyed = {
  readonly destroyed: number;
  /** Whether a second administrator was asked instead. */ readonly waits: boolean;
};

const consentId = z.custom<ConsentId>(
  (value) => typeof value === 'string' && isId('consent', value),
  'no such request',
);
export const answerConsentInput = z.object({ id: consentId, agree: z.boolean() });

export type ConsentRow = {
  readonly id: ConsentId;
  readonly kind: ConsentKind;
  readonly titles: readonly string[];
  /** What a dispatch says it is about, or the marking wanted; else empty. */
  readonly subject: string;
  /** Whom a dispatch is for. */
  readonly to: readonly string[];
  /** The time that was set for a dispatch to leave; null: once it is approved. */
  readonly leavesAt: number | null;
  readonly reason: string;
  readonly askedBy: string;
  readonly askedAt: number;
  /** Nobody agrees with themselves. */
  readonly own: boolean;
};

/** The head and the first chunk of one document's stored file, in base64, to be opened in the browser. */
export type Drill = {
  readonly document: DocumentId;
  readonly reference: string;
  readonly title: string;
  readonly head: string;
  readonly chunk: string;
  readonly only: boolean;
};

export type KeysPage = {
  readonly recoveryKey: string | null;
  readonly generation: number;
  readonly versions: number;
  /** Versions that the recovery key of today opens. */
  readonly recoverable: number;
  readonly destroyed: number;
  readonly twoPeople: boolean;
  readonly administrators: number;
  readonly lastTried: {
    readonly at: number;
    readonly who: string;
    readonly opened: boolean;
  } | null;
  readonly lastBackup: number | null;
  readonly consents: readonly ConsentRow[];
};

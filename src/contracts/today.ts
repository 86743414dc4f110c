import { z } from 'zod';
import type { DispatchId, DocumentId, RecipientId } from '@/core/base/ids';
import type { ConsentRow } from '@/contracts/keys';
import type { RequestRow } from '@/contracts/requests';
import type { Elsewhere } from '@/core/insight/elsewhere';
import type { Warning } from '@/core/insight/warnings';
import type { Silence } from '@/core/insight/never-opened';

const WHOSE = ['all', 'own', 'others'] as const;
/** Of whom what is shown is; absent: what the viewer works with. */
export const todayInput = z.object({ of: z.enum(WHOSE).optional() });
export type TodayInput = z.infer<typeof todayInput>;

type RefusedRow = {
  readonly recipientId: RecipientId | null;
  readonly who: string;
  readonly organisation: string;
  readonly documentId: DocumentId | null;
  readonly title: string;
  readonly reason: string;
  readonly times: number;
  readonly last: number;
};
type EndingRow = {
  readonly dispatchId: DispatchId;
  readonly reference: string;
  readonly subject: string;
  readonly people: number;
  readonly until: number;
};
type SilentRow = {
  readonly dispatchId: DispatchId;
  readonly reference: string;
  readonly subject: string;
  readonly why: Silence;
  readonly people: readonly string[];
  readonly recipients: readonly RecipientId[];
  /** Whether mailing the link again may help, and the viewer may do it. */ readonly mayMail: boolean;
};
type UndeliveredRow = {
  readonly dispatchId: DispatchId | null;
  readonly recipientId: RecipientId | null;
  readonly subject: string;
  readonly address: string;
  readonly attempts: number;
  readonly problem: string;
  readonly over: boolean;
  readonly mayMail: boolean;
};

/** What needs somebody, today. */
export type TodayPage = {
  readonly now: number;
  readonly of: (typeof WHOSE)[number];
  /** What the viewer may choose among. */ readonly choices: readonly (typeof WHOSE)[number][];
  /** Whether refusals and places are shown: of others they are not for everybody. */ readonly recorded: boolean;
  /**
   * What the person who runs this server has to see to; empty for all but administrators.
   */
  readonly warnings: readonly Warning[];
  readonly requests: readonly RequestRow[];
  /** What waits for a second administrator; empty for others. */ readonly consents: readonly ConsentRow[];
  readonly refused: readonly RefusedRow[];
  readonly elsewhere: readonly Elsewhere[];
  readonly ending: readonly EndingRow[];
  readonly silent: readonly SilentRow[];
  readonly undelivered: readonly UndeliveredRow[];
};

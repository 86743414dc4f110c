import { z } from 'zod';
import { OFFERED_RIGHTS } from '@/core/policy/rights';
import { documentId } from '@/contracts/document';
import { linkToken } from '@/contracts/link-token';
import {
  isId,
  type DispatchId,
  type DocumentId,
  type RecipientId,
  type RequestId,
} from '@/core/base/ids';
import type { RefusalReason } from '@/core/policy/decide';
import type { RequestState, Turn } from '@/core/policy/requests';
import type { Right } from '@/core/policy/rights';

const requestId = z.custom<RequestId>(
  (value) => typeof value === 'string' && isId('request', value),
  'no such request',
);
// Passing on has bounds that only the sender can set, so it is not asked for by a click.
const right = z.enum(OFFERED_RIGHTS).exclude(['pass-on']).nullable();
const moment = z.number().int().nullable();

/** With neither right nor time it is a message. */
export const askInput = z.object({
  /** Null: from the list of what somebody was sent. */
  token: linkToken.nullable(),
  document: documentId,
  right,
  until: moment,
  reason: z.string().trim().min(1, 'a message is missing').max(500),
});
export type AskInput = z.infer<typeof askInput>;

/** One answer to one or several requests that are alike. With neither right nor time it declines. */
export const answerInput = z.object({
  requests: z.array(requestId).min(1).max(500),
  right,
  /** `as-asked`: each gets the time that they asked for. */
  until: z.union([moment, z.literal('as-asked')]),
  prints: z.number().int().min(1).max(999).nullable(),
  words: z.string().trim().max(500),
});
export type AnswerInput = z.infer<typeof answerInput>;

/** A question back to those who asked, before an answer. */
export const askBackInput = z.object({
  requests: z.array(requestId).min(1).max(500),
  words: z.string().trim().min(1, 'a question is missing').max(500),
});
export type AskBackInput = z.infer<typeof askBackInput>;

/** What an asker replies to a question back. */
export const replyInput = z.object({
  document: documentId,
  request: requestId,
  words: z.string().trim().min(1, 'a reply is missing').max(500),
});
export type ReplyInput = z.infer<typeof replyInput>;

/** A request as the person who asked sees it. */
export type OwnRequest = {
  readonly id: RequestId;
  readonly right: Right | null;
  readonly until: number | null;
  readonly reason: string;
  readonly state: RequestState;
  /** Questions back and replies, in their order. */
  readonly turns: readonly Turn[];
  readonly answer: string;
  readonly askedAt: number;
};

/** A request as staff see it. */
export type RequestRow = OwnRequest & {
  readonly recipientId: RecipientId;
  readonly name: string;
  readonly address: string;
  readonly organisation: string;
  readonly documentId: DocumentId;
  readonly title: string;
  readonly dispatchId: DispatchId;
  readonly subject: string;
  /** Why they could not open it when they asked; null: they could. */
  readonly met: RefusalReason | null;
  /** What the person holds now. */
  readonly holds: {
    readonly rights: readonly Right[];
    readonly until: number | null;
    readonly prints: number | null;
  };
  readonly mayAnswer: boolean;
  /** It is about a document or a dispatch of the viewer. */ readonly yours: boolean;
  /** What of it a ceiling would take even if it were given, and whose ceiling that is: `the marking Bidders`. */
  readonly above: {
    readonly right: string | null;
    readonly until: { readonly at: number; readonly by: string } | null;
  };
};

import { z } from 'zod';
import { documentId } from '@/contracts/document';
import { reasonInput } from '@/contracts/settings';
import { licenceInput } from '@/contracts/reader';
import type { OwnRevision } from '@/contracts/own-revision';
import { isId, type RecipientId, type RevisionId } from '@/core/base/ids';

const revisionId = z.custom<RevisionId>(
  (value) => typeof value === 'string' && isId('revision', value),
  'no such file',
);

/** What comes along with a changed file; the file itself is the body of the request. */
export const sendRevisionInput = licenceInput.extend({
  name: z.string().trim().min(1, 'the file needs a name').max(200),
  note: z.string().trim().max(500).default(''),
});
export type SendRevisionInput = z.output<typeof sendRevisionInput>;

export const answerRevisionInput = z.object({
  id: documentId,
  revision: revisionId,
  accept: z.boolean(),
  words: z.string().trim().max(500).default(''),
});
export type AnswerRevisionInput = z.output<typeof answerRevisionInput>;

/** Telling whoever has a document that a new version took its place. */
export const tellInput = z.object({ id: documentId, reason: reasonInput });
export type TellInput = z.output<typeof tellInput>;

/** The same, for who answers for the document. */
export type RevisionRow = OwnRevision & {
  readonly number: number;
  readonly pages: number;
  readonly bytes: number;
  readonly note: string;
  readonly recipientId: RecipientId;
  readonly name: string;
  readonly address: string;
  /** The version that was changed. */
  readonly basedOn: { readonly number: number; readonly pages: number };
};
/** All changed files of a document. `current`: the number of the version that opens now. */
export type Revisions = {
  readonly current: number;
  readonly currentPages: number;
  readonly revisions: readonly RevisionRow[];
};

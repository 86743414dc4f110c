import { z } from 'zod';
import { reasonInput } from '@/contracts/settings';
import { folderId, type FolderRow } from '@/contracts/folder';
import { markingId, type MarkingRow } from '@/contracts/marking';
import { orderBy, type Page } from '@/contracts/page';
import { DOCUMENT_ORDERS } from '@/core/base/order';
import {
  isId,
  type DocumentId,
  type FolderId,
  type MarkingId,
  type StaffId,
  type UploadId,
} from '@/core/base/ids';

/** Bytes of one part of an upload; a whole number of chunks, so that each part can be sealed by itself. */
export const PART = 16 * 1024 * 1024;

export const documentId = z.custom<DocumentId>(
  (value) => typeof value === 'string' && isId('document', value),
  'no such document',
);
const uploadId = z.custom<UploadId>(
  (value) => typeof value === 'string' && isId('upload', value),
  'no such upload',
);

export const beginUploadInput = z.object({
  fileName: z.string().trim().min(1, 'the file needs a name').max(255),
  bytes: z.number().int().min(0),
  /** The document this becomes a new version of; absent: a document of its own. */
  revises: documentId.optional(),
  /** Whether the organisation’s recovery key can open it; a new version follows its document. */
  recoverable: z.boolean().optional(),
});
export type BeginUploadInput = z.infer<typeof beginUploadInput>;
export type BeginUploadResult = { readonly id: UploadId; readonly partBytes: number };

/** An upload that was begun and is not finished. */
export type HalfUpload = {
  readonly id: UploadId;
  readonly fileName: string;
  readonly bytes: number;
  readonly receivedBytes: number;
  readonly partBytes: number;
  readonly updatedAt: number;
};

export const partInput = z.object({ id: uploadId, offset: z.coerce.number().int().min(0) });
export type PartResult = { readonly receivedBytes: number };

const title = z.string().trim().min(1, 'the title is missing').max(200);
const reference = z.string().trim().min(1, 'the reference is missing').max(60);
/** Where a new document sits and what it is marked; a new version needs neither name. */
export const finishUploadInput = z.object({
  id: uploadId,
  title,
  reference,
  folderId: folderId.nullish(),
  markingId: markingId.nullish(),
  recoverable: z.boolean().optional(),
  /** Whether it becomes a document of its own although the same file is one already. */
  again: z.boolean().optional(),
});
export const finishRevisionInput = z.object({ id: uploadId });
export type FinishUploadInput = z.infer<typeof finishUploadInput>;

export const cancelUploadInput = z.object({ id: uploadId });
/** What a file says of itself, to begin with. */
export type FileLooked = {
  readonly pages: number;
  readonly title: string;
  /** One that is free. */
  readonly reference: string;
  /** The marking that it names itself; `null`: none. */
  readonly marking: { readonly id: MarkingId; readonly name: string } | null;
  /** The document that the same file is already, among those the asker answers for. */
  readonly same: SameDocument | null;
};
export type SameDocument = {
  /** The version that it is, where the document has a newer one; `null`: it is the current one. */
  readonly older: number | null;
  readonly reference: string;
  readonly title: string;
  readonly revoked: boolean;
};
export const documentInput = z.object({ id: documentId });
/** One page of a document that a member of staff checks. */
export const checkPageInput = z.object({
  id: documentId,
  page: z.coerce.number().int().min(1),
  width: z.coerce.number().int().min(100).max(20_000).default(1275),
  column: z.coerce.number().int().min(0).max(20).optional(),
  row: z.coerce.number().int().min(0).max(20).optional(),
  /** Another version than the one that opens now, by its number. */
  version: z.coerce.number().int().min(1).optional(),
});
export type CheckPageInput = z.output<typeof checkPageInput>;
/** Whole words, looked for from a page on, in a document that is checked. */
export const checkFindInput = z.object({
  id: documentId,
  words: z.string().trim().min(2, 'two letters at least').max(80),
  from: z.coerce.number().int().min(1).default(1),
});
export type CheckFindInput = z.output<typeof checkFindInput>;
export type CheckView = {
  readonly id: DocumentId;
  readonly title: string;
  readonly reference: string;
  readonly pages: number;
  readonly revoked: boolean;
};
export const revokeDocumentInput = documentInput.extend({ reason: reasonInput });

export const staffId = z.custom<StaffId>(
  (value) => typeof value === 'string' && isId('staff', value),
  'no such colleague',
);

const attributeName = z.string().trim().min(1, 'the attribute needs a name').max(40);
const attributeValue = z.string().trim().max(200);
/** One attribute, as it is typed. */
export const attributeInput = z.object({
  name: attributeName,
  value: attributeValue.min(1, 'the value is missing'),
});

/** Changes how documents are filed, several alike; what is absent stays as it is. */
export const fileInput = z.object({
  documents: z.array(documentId).min(1).max(10_000),
  folderId: folderId.nullable().optional(),
  markingId: markingId.nullable().optional(),
  ownerId: staffId.optional(),
  deputyId: staffId.nullable().optional(),
  title: title.optional(),
  /** All of a document's attributes; only for one at a time. */
  attributes: z
    .record(attributeName, attributeValue)
    .refine((all) => Object.keys(all).length <= 20, 'at most 20 attributes')
    .optional(),
});
export type FileInput = z.infer<typeof fileInput>;
/** How many documents were filed; none yet where a second person has to agree to a lower marking. */
export type Filed = { readonly changed: number; readonly waits: boolean };

export const listDocumentsInput = z.object({
  q: z.string().trim().max(200).default(''),
  folder: folderId.optional(),
  marking: markingId.optional(),
  own: z.literal('true').optional(),
  sort: orderBy(DOCUMENT_ORDERS).optional(),
  after: documentId.optional(),
});
export type ListDocumentsInput = z.infer<typeof listDocumentsInput>;

export type DocumentsPage = Page<DocumentRow> & {
  readonly folders: readonly FolderRow[];
  readonly markings: readonly MarkingRow[];
  readonly colleagues: readonly Colleague[];
  /** Whether the organisation has a recovery key. */ readonly recovery: boolean;
  readonly filter: ListDocumentsInput;
};
/** Somebody who can own a document. */
export type Colleague = { readonly id: StaffId; readonly name: string };

export type DocumentRow = {
  readonly id: DocumentId;
  readonly reference: string;
  readonly title: string;
  readonly pages: number;
  /** It was encrypted on its sender's machine: its content is not here. */
  readonly isLocal: boolean;
  readonly bytes: number;
  readonly ownerId: StaffId;
  readonly ownerName: string;
  readonly folderId: FolderId | null;
  readonly marking: string | null;
  readonly markingId: MarkingId | null;
  readonly version: number;
  readonly protectedAt: number;
  readonly revoked: boolean;
  readonly people: number;
  /** Whether more can come in than can be counted. */
  readonly unknown: boolean;
  readonly opens: number;
};

import { z } from 'zod';
import { isId, type DocumentId, type StaffId, type UploadId } from '@/core/base/ids';

/** Most bytes a document may have. */
export const MAX_DOCUMENT = 1024 ** 3;
/** Bytes of one part of an upload; a whole number of chunks, so that each part can be sealed by itself. */
export const PART = 16 * 1024 * 1024;

export const documentId = z.custom<DocumentId>((value) => typeof value === 'string' && isId('document', value), 'no such document');
export const uploadId = z.custom<UploadId>((value) => typeof value === 'string' && isId('upload', value), 'no such upload');

export const beginUploadInput = z.object({
  fileName: z.string().trim().min(1, 'the file needs a name').max(255),
  bytes: z.number().int().min(0),
});
export type BeginUploadInput = z.infer<typeof beginUploadInput>;
export type BeginUploadResult = { readonly id: UploadId; readonly partBytes: number };

export const partInput = z.object({ id: uploadId, offset: z.coerce.number().int().min(0) });
export type PartResult = { readonly receivedBytes: number };

export const finishUploadInput = z.object({
  id: uploadId,
  title: z.string().trim().min(1, 'a title is needed').max(200),
  reference: z.string().trim().min(1, 'a reference is needed').max(60),
});
export type FinishUploadInput = z.infer<typeof finishUploadInput>;

export const cancelUploadInput = z.object({ id: uploadId });
export const documentInput = z.object({ id: documentId });

export type DocumentRow = {
  readonly id: DocumentId;
  readonly reference: string;
  readonly title: string;
  readonly pages: number;
  readonly bytes: number;
  readonly ownerId: StaffId;
  readonly ownerName: string;
  readonly protectedAt: number;
  readonly revoked: boolean;
  readonly people: number;
  readonly opens: number;
};

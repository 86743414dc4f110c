import { z } from 'zod';
import { markingId } from '@/contracts/marking';
import { isId, type FolderId, type MarkingId } from '@/core/base/ids';

export const folderId = z.custom<FolderId>(
  (value) => typeof value === 'string' && isId('folder', value),
  'no such folder',
);
const name = z
  .string()
  .trim()
  .min(1, 'the folder needs a name')
  .max(80)
  .refine((text) => !text.includes('/'), 'a folder’s name has no slash');

export const makeFolderInput = z.object({ name, parentId: folderId.nullable() });
export const changeFolderInput = z.object({
  id: folderId,
  name: name.optional(),
  parentId: folderId.nullable().optional(),
  markingId: markingId.nullable().optional(),
});
export const folderInput = z.object({ id: folderId });

/** `documents`: those in it and in the folders below. */
export type FolderRow = {
  readonly id: FolderId;
  readonly parentId: FolderId | null;
  readonly name: string;
  /** How new documents in it, and below it, are marked where nothing else says so. */
  readonly markingId: MarkingId | null;
  readonly documents: number;
};

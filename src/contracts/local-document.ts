import { z } from 'zod';
import { MEDIA_TYPES, type MediaType } from '@/core/content/media-types';
import type { UploadId, VersionId } from '@/core/base/ids';
import { beginUploadInput, cancelUploadInput, finishUploadInput } from '@/contracts/document';
import { publicKey } from '@/contracts/reader';

/** A document that is encrypted on its sender's machine: its key is made here, its content stays there. */
export const beginLocalInput = beginUploadInput
  .pick({ fileName: true, bytes: true, recoverable: true })
  .extend({
    /** What the content key is to be encrypted to: a key of this browser for this alone. */
    boxKey: publicKey,
  });
export type BeginLocalInput = z.infer<typeof beginLocalInput>;
export type LocalBegun = {
  readonly id: UploadId;
  readonly version: VersionId;
  /** The header of the age file, in base64. */
  readonly header: string;
  /** The content key for this browser alone (JWE). */
  readonly box: string;
};

export const localCoverInput = cancelUploadInput.extend({
  reference: finishUploadInput.shape.reference,
});
export type LocalCoverInput = z.infer<typeof localCoverInput>;
/** What stands before and after the age file to make it a protected file, in base64, and what that is called. */
export type LocalCover = { readonly head: string; readonly tail: string; readonly name: string };

export const finishLocalInput = finishUploadInput
  .pick({ id: true, title: true, reference: true, folderId: true, markingId: true })
  .extend({
    /** What the browser found it to be. */
    mediaType: z.enum(MEDIA_TYPES),
    pages: z.number().int().min(0).max(20_000),
  });
export type FinishLocalInput = z.infer<typeof finishLocalInput>;

/** What the worker that encrypts on this machine is asked. */
export type SealAsked =
  | { readonly kind: 'look'; readonly file: File; readonly wasm: ArrayBuffer }
  | {
      readonly kind: 'seal';
      readonly file: File;
      readonly begun: LocalBegun;
      readonly cover: LocalCover;
      /** Cannot be taken out of the browser. */
      readonly privateKey: CryptoKey;
    };
/** What a file is: its kind, and how many pages are shown of it. */
export type FileFound = { readonly mediaType: MediaType; readonly pages: number };
export type SealReply =
  | { readonly kind: 'found'; readonly found: FileFound }
  /** Plain bytes that are sealed so far. */
  | { readonly kind: 'sealed'; readonly bytes: number }
  /** The protected file, on this machine's disk. */
  | { readonly kind: 'done'; readonly file: File }
  | { readonly kind: 'failed'; readonly code: string };

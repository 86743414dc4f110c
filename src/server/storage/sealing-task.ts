import { CHUNK, TAG } from '@/core/age/chunks';

/** Chunks that a thread is given at a time: enough that handing them over costs little. */
export const LOT = 16;
/** Bytes of a sealed chunk, but for the last. */
export const SEALED = CHUNK + TAG;
/** What a thread does with chunks, and how many bytes of each come. */
export const COMES = { seal: CHUNK, open: SEALED } as const;

/** What a thread is given: up to `LOT` chunks, from a file into a file. */
export type SealingTask = {
  readonly work: keyof typeof COMES;
  readonly key: Uint8Array;
  /** Number of its first chunk in the payload. */
  readonly first: number;
  /** Whether the payload ends with its last chunk. */
  readonly ends: boolean;
  /** Bytes that come. */
  readonly bytes: number;
  /** Where from: a file, or shared memory where they stand at the places of sealed chunks. */
  readonly from: { readonly fd: number; readonly at: number } | { readonly shared: Uint8Array };
  readonly to: { readonly fd: number; readonly at: number };
};

/** How it went: well, the first chunk that does not verify, a file that ended too soon, or what the disk said. */
export type SealingReply =
  | null
  | { readonly damaged: number }
  | { readonly short: true }
  | { readonly code: string; readonly message: string };

import type { Payload } from '@/server/storage/sealed-files';

/**
 * Where the bytes of a blob are, as a value that can be handed to another thread. Only `openBlob`
 * looks into it.
 */
export type BlobPlace =
  | { readonly in: 'file'; readonly path: string }
  | { readonly in: 'memory'; readonly name: string; readonly bytes: SharedArrayBuffer };

/** Bytes `offset` to `offset + length` of a blob. */
export type Range = { readonly offset: number; readonly length: number };

/** Keeps sealed files. Only ciphertext is ever written, also of what comes plain to be sealed. */
export type BlobStore = {
  /**
   * Writes `source` at `offset` of an unfinished blob, cutting off whatever stood there from an
   * interrupted try. Done, it lasts through a power cut.
   */
  readonly writeAt: (
    key: string,
    offset: number,
    source: AsyncIterable<Uint8Array>,
  ) => Promise<void>;
  /**
   * The same of what is sealed on its way: `source` is plain, and nothing of it is written. Pieces of it
   * may be lent: each is done with before the next is asked for.
   */
  readonly sealAt: (
    key: string,
    offset: number,
    payload: Payload,
    source: AsyncIterable<Uint8Array>,
  ) => Promise<void>;
  /**
   * Makes a blob of `size` bytes whole and lasting. @throws StorageError `BLOB_INCOMPLETE` where it
   * has another size
   */
  readonly finish: (key: string, size: number) => Promise<void>;
  /** Bytes of a finished or unfinished blob; `null` where there is none. */
  readonly sizeOf: (key: string) => Promise<number | null>;
  /** The bytes of a blob, or of a part of it, in memory that does not grow with it. It ends where the blob does. */
  readonly read: (key: string, range?: Range) => AsyncIterable<Uint8Array>;
  /** What `openBlob` reads from, here or in a worker thread. */
  readonly placeOf: (key: string) => BlobPlace;
  readonly remove: (key: string) => Promise<void>;
  /** Removes unfinished blobs that nothing names: what a killed process left behind. */
  readonly sweep: (wanted: ReadonlySet<string>) => Promise<void>;
  /** @throws StorageError `DISK_FULL` where so many bytes would leave too little for everything else */
  readonly needRoom: (bytes: number) => Promise<void>;
};

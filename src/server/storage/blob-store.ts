/** Keeps sealed files. Only ciphertext ever comes here. */
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
   * Makes a blob of `size` bytes whole and lasting. @throws StorageError `BLOB_INCOMPLETE` where it
   * has another size
   */
  readonly finish: (key: string, size: number) => Promise<void>;
  /** Where worker threads can read a finished or unfinished blob. */
  readonly pathOf: (key: string) => string;
  readonly remove: (key: string) => Promise<void>;
  /** Removes unfinished blobs that nothing names: what a killed process left behind. */
  readonly sweep: (wanted: ReadonlySet<string>) => Promise<void>;
  /** @throws StorageError `DISK_FULL` where so many bytes would leave too little for everything else */
  readonly needRoom: (bytes: number) => Promise<void>;
};

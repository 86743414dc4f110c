import { closeSync, openSync, readSync } from 'node:fs';
import type { BlobPlace, Range } from '@/server/storage/blob-store';

/** A blob that is read from by position, without waiting: PDFium asks for bytes while it draws. */
export type OpenBlob = {
  /** The bytes of a range; fewer where the blob ends sooner. */
  readonly read: (range: Range) => Uint8Array;
  readonly close: () => void;
};

/** What stands for a blob while this process runs. */
export function nameOfPlace(place: BlobPlace): string {
  return place.in === 'file' ? place.path : place.name;
}

/** Opens a blob for reading. @throws Error where there is none */
export function openBlob(place: BlobPlace): OpenBlob {
  if (place.in === 'memory') {
    const bytes = new Uint8Array(place.bytes);
    return {
      read: ({ offset, length }) => bytes.slice(offset, offset + length),
      close: () => undefined,
    };
  }
  const file = openSync(place.path, 'r');
  return {
    read: ({ offset, length }) => {
      const bytes = new Uint8Array(length);
      const found = readSync(file, bytes, 0, length, offset);
      return found === length ? bytes : bytes.subarray(0, found);
    },
    close: () => {
      closeSync(file);
    },
  };
}

import { inflateRawSync } from 'node:zlib';
import { ContentError } from '@/core/pages/errors';

// Files of Word and Excel are archives (APPNOTE.TXT of the ZIP format, 4.3): their directory says
// what each part unpacks to, before anything is unpacked.

const DIRECTORY_END = 0x06054b50;
const DIRECTORY_ENTRY = 0x02014b50;
const PART = 0x04034b50;
const END_BYTES = 22;
const PART_HEAD = 30;
const DEFLATED = 8;
const ENTRY_BYTES = 46;
const MOST_COMMENT = 0xffff;
/** What all parts may unpack to, in bytes, and how many there may be. */
const MOST_UNPACKED = 256 << 20;
const MOST_PARTS = 10_000;

function endOf(view: DataView): number | null {
  const lowest = Math.max(0, view.byteLength - END_BYTES - MOST_COMMENT);
  for (let at = view.byteLength - END_BYTES; at >= lowest; at--)
    if (view.getUint32(at, true) === DIRECTORY_END) return at;
  return null;
}

/** The bytes of a part as they lie in the archive, whose own head is `at`. */
function packedAt(bytes: Uint8Array, view: DataView, at: number, length: number): Uint8Array {
  if (at + PART_HEAD > bytes.length || view.getUint32(at, true) !== PART)
    throw new ContentError('FILE_DAMAGED');
  const from = at + PART_HEAD + view.getUint16(at + 26, true) + view.getUint16(at + 28, true);
  return bytes.subarray(from, from + length);
}

/** Unpacks a part once and lets go of it: what it says of its size may be a lie. */
function needTrueSize(packed: Uint8Array, stated: number): void {
  try {
    inflateRawSync(packed, { maxOutputLength: Math.max(1, stated) });
  } catch (cause) {
    const isLarger =
      cause instanceof Error && 'code' in cause && cause.code === 'ERR_BUFFER_TOO_LARGE';
    throw new ContentError(isLarger ? 'FILE_UNPACKS_TOO_FAR' : 'FILE_DAMAGED', { cause });
  }
}

/**
 * Looks whether an archive unpacks to what can be held in memory, before anything else reads it.
 *
 * @throws ContentError `FILE_DAMAGED`, `FILE_UNPACKS_TOO_FAR`
 */
export function needSmallArchive(bytes: Uint8Array): void {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const end = endOf(view);
  if (end === null) throw new ContentError('FILE_DAMAGED');
  const parts = view.getUint16(end + 10, true);
  if (parts > MOST_PARTS) throw new ContentError('FILE_UNPACKS_TOO_FAR');
  let at = view.getUint32(end + 16, true);
  let unpacked = 0;
  for (let part = 0; part < parts; part++) {
    if (at + ENTRY_BYTES > end || view.getUint32(at, true) !== DIRECTORY_ENTRY)
      throw new ContentError('FILE_DAMAGED');
    const stated = view.getUint32(at + 24, true);
    unpacked += stated;
    if (unpacked > MOST_UNPACKED) throw new ContentError('FILE_UNPACKS_TOO_FAR');
    const packed = packedAt(
      bytes,
      view,
      view.getUint32(at + 42, true),
      view.getUint32(at + 20, true),
    );
    if (view.getUint16(at + 10, true) === DEFLATED) needTrueSize(packed, stated);
    const [name, extra, comment] = [28, 30, 32].map((of) => view.getUint16(at + of, true));
    at += ENTRY_BYTES + (name ?? 0) + (extra ?? 0) + (comment ?? 0);
  }
}

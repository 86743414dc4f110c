/** What letters of a file are written in. */
type Encoding = 'utf-8' | 'utf-16le' | 'utf-16be' | 'windows-1252';

/** How a text is written: by its mark, else as UTF-8, and where it is not that, in the letters of older systems. */
function encodingOf(bytes: Uint8Array): Encoding {
  const [first, second] = bytes;
  if (first === 0xff && second === 0xfe) return 'utf-16le';
  if (first === 0xfe && second === 0xff) return 'utf-16be';
  try {
    new TextDecoder('utf-8', { fatal: true }).decode(bytes);
    return 'utf-8';
  } catch {
    return 'windows-1252';
  }
}

/** The letters of a text file, without the mark that says how they are written. */
export function decodeText(bytes: Uint8Array): string {
  return new TextDecoder(encodingOf(bytes)).decode(bytes);
}

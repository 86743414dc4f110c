declare module 'wawoff2' {
  /** Unpacks a WOFF2 file into the font that it holds. */
  export function decompress(bytes: Uint8Array): Promise<Uint8Array>;
}

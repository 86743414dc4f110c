/** Kinds of file that can be protected, by their media type (RFC 6838). */
export const MEDIA_TYPES = ['application/pdf'] as const;
export type MediaType = (typeof MEDIA_TYPES)[number];

type FileKind = {
  /** With its dot. */
  readonly extension: string;
  /** Whether a file that begins with these bytes, at most `HEAD` of them, is of this kind. */
  readonly recognises: (head: Uint8Array) => boolean;
};

/** So many bytes of a file tell its kind. */
export const HEAD = 1024;

const KINDS: Readonly<Record<MediaType, FileKind>> = {
  'application/pdf': {
    extension: '.pdf',
    // Readers accept a header anywhere in the first kilobyte (ISO 32000-2, 7.5.2 and annex I).
    recognises: (head) => includes(head, '%PDF-'),
  },
};

function includes(head: Uint8Array, text: string): boolean {
  return String.fromCharCode(...head.subarray(0, HEAD)).includes(text);
}

/** The kind of a file by its first bytes; `null`: none that can be protected. */
export function mediaTypeOf(head: Uint8Array): MediaType | null {
  return MEDIA_TYPES.find((mediaType) => KINDS[mediaType].recognises(head)) ?? null;
}

/** What the name of a file of this kind ends with. */
export function extensionOf(mediaType: MediaType): string {
  return KINDS[mediaType].extension;
}

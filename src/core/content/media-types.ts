/** What is meant by any file of a kind that is not named here. */
const ANY_OTHER = 'application/octet-stream';
const OPEN_XML = 'application/vnd.openxmlformats-officedocument';

/** Kinds of file that can be protected, by their media type (RFC 6838). */
export const MEDIA_TYPES = [
  'application/pdf',
  'image/png',
  'image/jpeg',
  'image/tiff',
  'image/webp',
  'image/svg+xml',
  'text/plain',
  'text/markdown',
  'text/csv',
  `${OPEN_XML}.wordprocessingml.document`,
  `${OPEN_XML}.spreadsheetml.sheet`,
  `${OPEN_XML}.presentationml.presentation`,
  ANY_OTHER,
] as const;
export type MediaType = (typeof MEDIA_TYPES)[number];

/**
 * Where the pages come from that a reader is shown: the file has them itself; they are made of it
 * when it is taken in; there are none, and it can only be kept.
 */
export type PagesFrom = 'itself' | 'made' | 'none';

type FileKind = {
  /** What names of such files end with, the usual one first, each with its dot. */
  readonly extensions: readonly string[];
  readonly pages: PagesFrom;
  /** Whether a file that begins with these bytes, at most `HEAD` of them, can be of this kind. */
  readonly begins: (head: Uint8Array) => boolean;
  /** Its first bytes are those of other kinds, too: only its name tells. */
  readonly toldByName?: true;
  /** Whether it is text that can be changed as text. */
  readonly isText?: true;
};

/** So many bytes of a file tell its kind. */
export const HEAD = 1024;

const KINDS: Readonly<Record<MediaType, FileKind>> = {
  'application/pdf': {
    extensions: ['.pdf'],
    pages: 'itself',
    // Readers accept a header anywhere in the first kilobyte (ISO 32000-2, 7.5.2 and annex I).
    begins: (head) => latin1(head).includes('%PDF-'),
  },
  'image/png': {
    extensions: ['.png'],
    pages: 'made',
    begins: startsWith('\u0089PNG\r\n\u001a\n'),
  },
  'image/jpeg': {
    extensions: ['.jpg', '.jpeg'],
    pages: 'made',
    begins: startsWith('\u00ff\u00d8\u00ff'),
  },
  'image/tiff': {
    extensions: ['.tif', '.tiff'],
    pages: 'made',
    begins: startsWith('II*\0', 'MM\0*', 'II+\0', 'MM\0+'),
  },
  'image/webp': {
    extensions: ['.webp'],
    pages: 'made',
    begins: (head) => /^RIFF[^]{4}WEBP/.test(latin1(head)),
  },
  'image/svg+xml': {
    extensions: ['.svg'],
    pages: 'made',
    begins: (head) => isText(head) && /<svg[\s>]|^[^<]*<(?:\?xml|!)/.test(latin1(head)),
    toldByName: true,
  },
  'text/plain': {
    extensions: ['.txt', '.text', '.log'],
    pages: 'made',
    begins: isText,
    toldByName: true,
    isText: true,
  },
  'text/markdown': {
    extensions: ['.md', '.markdown'],
    pages: 'made',
    begins: isText,
    toldByName: true,
    isText: true,
  },
  'text/csv': {
    extensions: ['.csv', '.tsv'],
    pages: 'made',
    begins: isText,
    toldByName: true,
    isText: true,
  },
  [`${OPEN_XML}.wordprocessingml.document`]: zipped('.docx'),
  [`${OPEN_XML}.spreadsheetml.sheet`]: zipped('.xlsx'),
  [`${OPEN_XML}.presentationml.presentation`]: zipped('.pptx'),
  [ANY_OTHER]: { extensions: [], pages: 'none', begins: () => true },
};

function latin1(head: Uint8Array): string {
  return String.fromCharCode(...head.subarray(0, HEAD));
}

function startsWith(...beginnings: readonly string[]): FileKind['begins'] {
  return (head) => beginnings.some((beginning) => latin1(head).startsWith(beginning));
}

/** A file of ISO/IEC 29500, which is an archive of parts: what is in it shows when it is read. */
function zipped(extension: string): FileKind {
  return {
    extensions: [extension],
    pages: 'made',
    begins: startsWith('PK\u0003\u0004'),
    toldByName: true,
  };
}

/** Whether it is in letters of some kind: UTF-16 with its mark, or bytes without control characters. */
function isText(head: Uint8Array): boolean {
  const text = latin1(head);
  return (
    /^(?:\u00ff\u00fe|\u00fe\u00ff)/.test(text) ||
    /^[^\u0000-\u0008\u000e-\u001a\u007f]*$/.test(text)
  );
}

function endingOf(fileName: string): string {
  return /\.[a-z0-9]{1,10}$/i.exec(fileName)?.[0] ?? '';
}

/** The kind that a file's name claims; `null`: none that is known. */
function kindCalled(fileName: string): MediaType | null {
  const ending = endingOf(fileName).toLowerCase();
  return MEDIA_TYPES.find((mediaType) => KINDS[mediaType].extensions.includes(ending)) ?? null;
}

/** The kind that a file's bytes show by themselves; `null`: none. */
function kindHeld(head: Uint8Array): MediaType | null {
  return (
    MEDIA_TYPES.find((mediaType) => {
      const { begins, toldByName } = KINDS[mediaType];
      return mediaType !== ANY_OTHER && toldByName !== true && begins(head);
    }) ?? null
  );
}

function isPicture(mediaType: MediaType): boolean {
  return mediaType.startsWith('image/');
}

/**
 * The kind of a file by its first bytes and its name; `null` where its name claims a kind that its
 * bytes are not of, though a picture may be called another kind of picture.
 */
export function mediaTypeOf(head: Uint8Array, fileName: string): MediaType | null {
  const called = kindCalled(fileName);
  if (called !== null && KINDS[called].begins(head)) return called;
  const held = kindHeld(head);
  if (called === null) return held ?? ANY_OTHER;
  return held !== null && isPicture(held) && isPicture(called) ? held : null;
}

/** Whether a file's name claims that it is a PDF. */
export function isCalledPdf(fileName: string): boolean {
  return kindCalled(fileName) === 'application/pdf';
}

export function pagesFrom(mediaType: MediaType): PagesFrom {
  return KINDS[mediaType].pages;
}

/** Whether a file of this kind is text that can be changed as text. */
export function isTextKind(mediaType: MediaType): boolean {
  return KINDS[mediaType].isText === true;
}

/** What the name of such a file ends with: as it came, where that says its kind. */
export function extensionOf(mediaType: MediaType, fileName = ''): string {
  const ending = endingOf(fileName);
  const { extensions } = KINDS[mediaType];
  const [usual = ending] = extensions;
  return extensions.includes(ending.toLowerCase()) ? ending : usual;
}

import { AppError } from '@/core/base/errors';

/** What is wrong with a file that cannot be shown; `TOO_DEMANDING` covers time and memory. */
export type ContentErrorCode =
  | 'EMPTY_FILE'
  | 'NOT_A_PDF'
  | 'NOT_OF_ITS_NAME'
  | 'FILE_DAMAGED'
  | 'FILE_LOCKED'
  | 'FILE_TOO_LONG'
  | 'FILE_UNPACKS_TOO_FAR'
  | 'FILE_TOO_DEMANDING'
  | 'PICTURE_TOO_LARGE'
  | 'PROTECTED_ALREADY'
  | 'PDF_DAMAGED'
  | 'PDF_LOCKED'
  | 'PDF_TOO_DEMANDING'
  | 'PDF_TOO_MANY_PAGES'
  | 'PDF_UNPACKS_TOO_FAR'
  | 'CONTENT_DAMAGED'
  | 'NO_SUCH_PAGE';

const sentences: Record<ContentErrorCode, string> = {
  EMPTY_FILE: 'This file is empty.',
  NOT_A_PDF: 'This file is not a PDF.',
  NOT_OF_ITS_NAME: 'What this file holds is not what its name says.',
  FILE_DAMAGED: 'This file is damaged and cannot be opened.',
  FILE_LOCKED:
    'This file asks for a password, or is of an older kind. Save it anew without one and choose it again.',
  FILE_TOO_LONG: 'This file is too long to be shown. Split it and protect its parts.',
  FILE_UNPACKS_TOO_FAR: 'This file unpacks to far more than it holds, so it was not taken in.',
  FILE_TOO_DEMANDING: 'This file takes too long or too much memory to be shown, so it was stopped.',
  PICTURE_TOO_LARGE:
    'This picture has more than 200 million pixels. Make it smaller and choose it again.',
  PROTECTED_ALREADY: 'This file is protected already. Use the document that is in it.',
  PDF_DAMAGED: 'This PDF is damaged and cannot be opened.',
  PDF_LOCKED: 'This PDF asks for a password. Save it without one and choose it again.',
  PDF_TOO_DEMANDING: 'This PDF takes too long or too much memory to draw, so it was stopped.',
  PDF_TOO_MANY_PAGES: 'This PDF has more than 20,000 pages. Split it and protect its parts.',
  PDF_UNPACKS_TOO_FAR: 'This PDF unpacks to far more than it holds, so it was not taken in.',
  CONTENT_DAMAGED: 'The stored content of this document is damaged. The sender can send it again.',
  NO_SUCH_PAGE: 'This document has no such page.',
};

/** What a file is by its first bytes. */
type FileKind = { readonly ext: string; readonly mime: string };

function sentenceOf(code: ContentErrorCode, found: FileKind | undefined): string {
  if (found === undefined) return sentences[code];
  const held = `${found.ext.toUpperCase()} (${found.mime})`;
  return code === 'NOT_A_PDF'
    ? `This file is not a PDF: it contains ${held}.`
    : `What this file holds is not what its name says: it contains ${held}.`;
}

/** A file that cannot be taken in, or a page that cannot be drawn. */
export class ContentError extends AppError<ContentErrorCode> {
  constructor(
    code: ContentErrorCode,
    options?: { readonly cause?: unknown; readonly found?: FileKind },
  ) {
    super('ContentError', code, sentenceOf(code, options?.found), options);
  }
}

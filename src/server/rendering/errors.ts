import { AppError } from '@/core/base/errors';

/** What is wrong with a file that cannot be shown; `TOO_DEMANDING` covers time and memory. */
export type ContentErrorCode =
  | 'EMPTY_FILE'
  | 'NOT_A_PDF'
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
  return code === 'NOT_A_PDF' && found !== undefined
    ? `This file is not a PDF: it contains ${found.ext.toUpperCase()} (${found.mime}).`
    : sentences[code];
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

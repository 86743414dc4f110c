import type { MediaType } from '@/core/content/media-types';

/** A file that travels with a message, made while it is read. */
type Attachment = {
  readonly name: string;
  readonly mediaType: MediaType;
  readonly read: () => AsyncIterable<Uint8Array>;
};
/** A message to one person, before it is put into MIME. */
export type Mail = {
  readonly id: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  /** The same as HTML; absent: it is made from the text. */
  readonly html?: string | null;
  readonly attachments?: readonly Attachment[];
};

/** Hands a message over for delivery. @throws MailError where that failed */
export type Mailer = {
  readonly deliver: (mail: Mail) => Promise<void>;
  readonly close: () => void;
};

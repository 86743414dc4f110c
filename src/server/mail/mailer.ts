import type { MediaType } from '@/core/content/media-types';

/** A file that travels with a message, made while it is read. */
type Attachment = {
  readonly name: string;
  readonly mediaType: MediaType;
  readonly read: () => AsyncIterable<Uint8Array>;
};
/** How an organisation's mail looks. */
export type MailLook = {
  readonly organisation: string;
  /** `#1f6f78`. */
  readonly colour: string;
  /** What stands below every message; empty: nothing. */
  readonly signature: string;
};

/** A message to one person, before it is put into MIME. */
export type Mail = {
  readonly id: string;
  readonly to: string;
  /** Whom an answer reaches; absent: nobody reads one. */
  readonly replyTo?: string | null;
  readonly subject: string;
  readonly text: string;
  /** The same as HTML; absent: it is made from the text. */
  readonly html?: string | null;
  readonly attachments?: readonly Attachment[];
  /** Whose mail it is, and how it looks. */
  readonly look?: MailLook;
};

/** Hands a message over for delivery. @throws MailError where that failed */
export type Mailer = {
  readonly deliver: (mail: Mail) => Promise<void>;
  readonly close: () => void;
};

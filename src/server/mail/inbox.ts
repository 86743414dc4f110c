/** What became of a message that came in: `later`: it is handed over again in the next round. */
export type Taken = 'done' | 'later';

/**
 * Where mail comes back to: what mail servers say about messages that could not be delivered.
 *
 * `take` hands over the beginning of each message that nobody has taken, as MIME; a message after
 * which it is stopped is handed over again.
 */
export type MailInbox = {
  readonly take: (each: (beginning: Uint8Array) => Promise<Taken>) => Promise<void>;
};

/** How much of a message is read: a report says what it says before the message it returns. */
export const BEGINNING_BYTES = 256 * 1024;

import type { RecipientStatus } from '@/core/mail/delivery-status';
import { statusWords } from '@/core/mail/status-words';
import { isProblem, problemText, STAFF } from '@/words/problem-text';

/** Why a message did not go out, for the staff; `null`: nobody foresaw it. */
export function failureText(error: Error | null): string {
  if (error === null) return 'This message could not be made.';
  return isProblem(error) ? problemText(error, STAFF) : error.message;
}

/** Nobody knows what became of it: it is not sent twice. */
export const INTERRUPTED = 'It was being handed over when Embargo stopped. It may have arrived.';

/** It may have gone out after the backup was made: somebody has to say whether it is sent again. */
export const WAITED_AT_BACKUP = 'It waited when the backup was made, and may have been sent since.';

/** What a delivery report says of a message that came back or is late, with what their server answered. */
export function returnedText({ action, status, diagnostic }: RecipientStatus): string {
  const words =
    action === 'delayed'
      ? 'It is late: their mail server is still being tried.'
      : statusWords(status);
  return diagnostic === '' ? words : `${words} Their server: “${diagnostic.slice(0, 300)}”`;
}

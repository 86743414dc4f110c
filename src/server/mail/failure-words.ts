import { isProblem, problemText } from '@/words/problem-text';

/** Why a message did not go out, for the staff; `null`: nobody foresaw it. */
export function failureText(error: Error | null): string {
  if (error === null) return 'This message could not be made.';
  return isProblem(error) ? problemText(error, 'staff') : error.message;
}

/** Nobody knows what became of it: it is not sent twice. */
export const INTERRUPTED = 'It was being handed over when Embargo stopped. It may have arrived.';

/** It may have gone out after the backup was made: somebody has to say whether it is sent again. */
export const WAITED_AT_BACKUP = 'It waited when the backup was made, and may have been sent since.';

import type { ProblemWords } from '@/contracts/problems';
import { isProblem, problemText, STAFF } from '@/words/problem-text';

/** What the command line says otherwise than a screen, which has buttons and pages to point to. */
const commandLineWords: ProblemWords<'no-recovery-key-for-backup' | 'rows-not-ours'> = {
  'no-recovery-key-for-backup': () =>
    'There is no recovery key to encrypt a backup to. Make one on the settings page first.',
  'rows-not-ours': () =>
    'Something this depends on was changed in the database by another program. Nothing was done. ' +
    'Verify the ledger, and find out who can write to the database.',
};

/** The sentence for an error of ours. */
export function commandLineText(error: Error): string {
  if (!isProblem(error)) return error.message;
  const { problem } = error;
  return Object.hasOwn(commandLineWords, problem)
    ? commandLineWords[problem as keyof typeof commandLineWords]({})
    : problemText(error, STAFF);
}

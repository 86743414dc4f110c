import type { ProblemWords } from '@/contracts/problems';
import { isProblem, problemText } from '@/words/problem-text';

/** What the command line says otherwise than a screen, which has buttons and pages to point to. */
const commandLineWords: Partial<ProblemWords<'no-recovery-key-for-backup' | 'done-before'>> = {
  'no-recovery-key-for-backup': () =>
    'There is no recovery key to encrypt a backup to. Make one on the settings page first.',
  'done-before': () => 'This was already done.',
};

/** The sentence for an error of ours. */
export function commandLineText(error: Error): string {
  if (!isProblem(error)) return error.message;
  const { problem } = error;
  const say = problem in commandLineWords ? commandLineWords[problem as 'done-before'] : undefined;
  return say?.({}) ?? problemText(error, 'staff');
}

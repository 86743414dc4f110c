import type { DoubtCode } from '@/core/compose/concerns';

/** What was left as it is, as the record tells it. */
export const doubtNames: Record<DoubtCode, string> = {
  'no-end': 'no end',
  'looks-like': 'an email address like a known one',
  'public-mail': 'a new email address at a public mail provider',
  'passes-to-nobody': 'Pass on without effect',
  'not-yet': 'a window that begins later',
  'only-kept': 'a file without pages that may not be kept',
  'message-marked-lower': 'a message marked lower than what it carries',
  'title-in-mail': 'a title in the mail that its marking keeps out',
};

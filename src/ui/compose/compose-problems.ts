import type { ComposeStart } from '@/contracts/draft';
import { MOST_RECIPIENTS } from '@/core/compose/limits';
import type { HandingOver } from '@/core/compose/draft';
import { isInTheClear } from '@/core/policy/delivery';

export const NO_MAIL = 'No mail server is set up here: set MAIL_URL and MAIL_FROM and start again.';

type Draft = {
  readonly rows: number;
  readonly subject: string;
};

/** What keeps it from going out besides whom it is for, in words; empty: nothing does. */
export function problemsOf(
  { rows, subject }: Draft,
  { mail }: Pick<ComposeStart, 'mail'>,
): string[] {
  return [
    mail ? null : NO_MAIL,
    rows > MOST_RECIPIENTS
      ? `A dispatch reaches at most ${MOST_RECIPIENTS.toLocaleString('en-GB')} people. ` +
        `These are ${rows.toLocaleString('en-GB')}: make it several.`
      : null,
    subject.trim() === '' ? 'The subject is missing.' : null,
  ].filter((problem) => problem !== null);
}

/** What stands in the way of handing over so, in words. `many`: it is for others than people by name. */
export function handOverProblems({ form, delivery, reason }: HandingOver, many: boolean): string[] {
  if (!isInTheClear(form)) return [];
  return [
    reason.trim() === ''
      ? 'Say why it is sent unprotected. The reason is kept in the ledger.'
      : null,
    delivery === 'by-hand'
      ? 'An unprotected file is always mailed. To hand it over, use your own original.'
      : null,
    many ? 'An unprotected file can only be sent to people by name.' : null,
  ].filter((problem) => problem !== null);
}

import { counted } from '@/core/base/counted';
import type { Language } from '@/core/base/languages';
import type { PassOnRefusal } from '@/core/policy/passing-on';
import type { RefusalReason } from '@/core/policy/decide';
import type { ProblemWords, RecipientProblem } from '@/contracts/problems';

const passOnWords: Record<PassOnRefusal, string> = {
  'not-given': 'You may not pass this on.',
  'too-many': 'You have already passed this on to as many people as you may.',
  'not-listed':
    'You may pass this on only to people at certain organisations, and this email address is at none of them.',
  'more-rights': 'You cannot pass on more than you may do yourself.',
  longer: 'You cannot pass it on for longer than you have it yourself.',
  themselves: 'That is you.',
};

/** Why asking for a right or more time would change nothing. */
const inVain: Partial<Record<RefusalReason, string>> = {
  revoked: 'The sender has ended your access.',
  'document-revoked': 'The sender has withdrawn this document.',
  'key-destroyed': 'This document has been destroyed.',
  'recipient-blocked': 'Access for this email address has been stopped.',
  'condition-unknown': 'This document cannot be opened at present.',
  'not-addressed': 'This was not sent to this email address.',
};

const english: ProblemWords<RecipientProblem> = {
  'request-too-large': () => 'This request is too large.',
  'request-unreadable': () => 'This request could not be read.',
  'wrong-origin': () =>
    'This request did not come from Embargo’s own pages, so it was not carried out.',
  'signed-out': () => 'Prove your email address again in this browser.',
  'address-unproven': () => 'Prove your email address again in this browser.',
  'act-key-used': () => 'This key was used for another request.',
  'done-before': () => 'This was done already. Reload the page to see it.',
  'not-sent-here': () => 'This was not sent to this email address, so there is nobody here to ask.',
  'asked-time-past': () => 'The time you ask for is in the past.',
  'right-held': () => 'You have this right already.',
  'nothing-to-reply': () =>
    'Your reply was not sent, because nobody waits for one: it was answered already.',
  'asked-before': () => 'You have already asked for this. The answer is still to come.',
  'requests-waiting': () => 'You have several requests waiting. Let the sender answer those first.',
  'device-key-unusable': () => 'This browser made no usable key. Reload the page and try again.',
  'document-gone': () => 'This document is no longer here.',
  'link-unknown': () =>
    'This link does not work. Copy the whole link from the message and open it again.',
  'open-it-first': () => 'Open it once yourself before you pass it on.',
  'given-already': () => 'They already have this. Nothing was changed.',
  'not-open-here': () => 'This document is not open here. Open it again from its link.',
  'revision-too-large': () =>
    'This file is larger than 96 MiB, the most that can be sent back here. Write to the sender.',
  'file-cut-off': () => 'The file did not arrive whole. Nothing was kept. Send it again.',
  'revisions-waiting': () =>
    'Five files of yours wait for an answer. Write to the sender before you send another one.',
  'ended-meanwhile': () => 'Access ended while this was being made.',
  'no-comment': () => 'This comment is not there any more.',
  'comments-full': () => 'No more comments can be made on this document. Write to the sender.',
  'no-such-pages': () => 'This document has no such pages.',
  'reason-needed': () => 'A reason is needed here. Nothing was changed.',
  'rows-not-ours': () => 'This cannot be shown at present. Write to the sender.',
  'link-ended': () => 'This link can no longer be opened. Ask the person who gave it to you.',
  'ask-in-vain': ({ reason }) =>
    `${inVain[reason] ?? 'This cannot be opened.'} You can still write to the sender.`,
  'too-many-tries': ({ retryAfter }) =>
    `Too many tries. Wait ${String(Math.ceil(retryAfter / 60))} min and try again.`,
  'pass-on-refused': ({ reason }) => passOnWords[reason],
  'code-wrong': ({ left }) =>
    left > 0
      ? `That is not the code. You have ${counted(left, 'try', 'tries')} left.`
      : 'This code does not work any more, or was requested in another browser. Ask for a new one.',
};

/** What recipients are told when something could not be done, in each language. */
export const recipientProblemWords: Readonly<Record<Language, ProblemWords<RecipientProblem>>> = {
  en: english,
};

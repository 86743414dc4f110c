import { isMessage, type Ask } from '@/core/policy/requests';
import type { Language } from '@/core/base/languages';
import { momentWords } from '@/server/mail/moment-words';
import { mailWords } from '@/words/mail/mail-words';

type Mail = { readonly subject: string; readonly body: string };

function asked(ask: Ask, zone: string): string {
  const { right, until } = ask;
  if (isMessage(ask)) return 'writes to you';
  const parts = [
    right === null ? null : `to be allowed to ${right}`,
    until === null ? null : `for time until ${momentWords(until, zone)}`,
  ].filter((part) => part !== null);
  return `asks ${parts.join(' and ')}`;
}

/** What a sender is told when somebody asks for more. */
export function askedMail(facts: {
  readonly who: string;
  readonly title: string;
  readonly ask: Ask;
  readonly reason: string;
  readonly zone: string;
  readonly link: string;
}): Mail {
  return {
    subject: `${facts.who} ${isMessage(facts.ask) ? 'writes' : 'asks'} about “${facts.title}”`,
    body: [
      `${facts.who} ${asked(facts.ask, facts.zone)}, about “${facts.title}”.`,
      `“${facts.reason}”`,
      'Answer it on your Today page:',
      facts.link,
    ].join('\n\n'),
  };
}

/** What a recipient is asked before their request is answered. */
export function askedBackMail(facts: {
  readonly senderName: string;
  readonly title: string;
  readonly words: string;
  readonly link: string;
  readonly language: Language;
}): Mail {
  const { senderName: sender, title, words, link } = facts;
  const say = mailWords(facts.language);
  return {
    subject: say('question.subject', { title }),
    body: [say('question.asks', { sender, title }), `“${words}”`, say('question.reply'), link].join(
      '\n\n',
    ),
  };
}

/** What a sender is told when an asker replied to their question. */
export function repliedMail(facts: {
  readonly who: string;
  readonly title: string;
  readonly words: string;
  readonly link: string;
}): Mail {
  return {
    subject: `${facts.who} replied about “${facts.title}”`,
    body: [
      `${facts.who} replied to your question about “${facts.title}”:`,
      `“${facts.words}”`,
      'Answer the request on your Today page:',
      facts.link,
    ].join('\n\n'),
  };
}

/** How a request was answered, as messages name it. */
const OUTCOMES = {
  given: 'answer.given',
  'given-in-part': 'answer.givenInPart',
  declined: 'answer.declined',
  answered: 'answer.answered',
} as const;

/** What a recipient is told when a request was answered. */
export function answeredMail(facts: {
  readonly senderName: string;
  readonly title: string;
  readonly state: keyof typeof OUTCOMES;
  readonly words: string;
  readonly until: number | null;
  readonly zone: string;
  readonly link: string;
  readonly language: Language;
}): Mail {
  const { senderName: sender, title, state, words, until, zone, link, language } = facts;
  const say = mailWords(language);
  const isGiven = state === 'given' || state === 'given-in-part';
  return {
    subject: say('answer.subject', { title }),
    body: [
      say(OUTCOMES[state], { sender, title }),
      ...(words === '' ? [] : [`“${words}”`]),
      ...(isGiven && until !== null
        ? [say('answer.valid', { until: momentWords(until, zone, language) })]
        : []),
      say('answer.sameLink'),
      link,
    ].join('\n\n'),
  };
}

import { isMessage, type Ask } from '@/core/policy/requests';
import { momentWords } from '@/server/mail/dispatch-mail';

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
}): Mail {
  return {
    subject: `A question about your request for “${facts.title}”`,
    body: [
      `${facts.senderName} has a question before answering what you asked about “${facts.title}”:`,
      `“${facts.words}”`,
      'Reply where you asked, by the same link as before:',
      facts.link,
    ].join('\n\n'),
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

/** What a recipient is told when a request was answered. */
export function answeredMail(facts: {
  readonly senderName: string;
  readonly title: string;
  readonly state: 'given' | 'given-in-part' | 'declined' | 'answered';
  readonly words: string;
  readonly until: number | null;
  readonly zone: string;
  readonly link: string;
}): Mail {
  const outcome = {
    given: 'You were given what you asked for',
    'given-in-part': 'You were given part of what you asked for',
    declined: 'What you asked for was declined',
    answered: 'Your message was answered',
  }[facts.state];
  return {
    subject: `Your request about “${facts.title}”`,
    body: [
      `${outcome}, by ${facts.senderName}, for “${facts.title}”.`,
      ...(facts.words === '' ? [] : [`“${facts.words}”`]),
      ...(facts.state === 'declined' || facts.state === 'answered' || facts.until === null
        ? []
        : [`It is valid until ${momentWords(facts.until, facts.zone)}.`]),
      'Use the same link as before:',
      facts.link,
    ].join('\n\n'),
  };
}

import type { Language } from '@/core/base/languages';
import type { RefusalReason, Withheld } from '@/core/policy/decide';

type RefusalWords = Readonly<
  Record<RefusalReason, { readonly title: string; readonly next: string }>
>;
type WithheldWords = Readonly<Record<Withheld, string>>;

const englishRefusals: RefusalWords = {
  'identity-not-proven': {
    title: 'Your email address has not been proven in this browser.',
    next: 'Prove it with a code, and you can read on.',
  },
  'not-addressed': {
    title: 'This was not sent to this email address.',
    next:
      'If you have another email address, use the one it was sent to. Otherwise ask the person ' +
      'who gave you the link.',
  },
  'recipient-blocked': {
    title: 'Access for this email address has been stopped.',
    next: 'Write to the sender if you think this is a mistake.',
  },
  'document-revoked': {
    title: 'The sender has withdrawn this document.',
    next: 'Nobody can open it at present. Write to the sender if you still need it.',
  },
  'not-yet': {
    title: 'This document is not open yet.',
    next: 'You can open this document later, from the same link.',
  },
  expired: {
    title: 'Your access to this document has ended.',
    next: 'Write to the sender if you need more time.',
  },
  revoked: {
    title: 'The sender has ended your access to this document.',
    next: 'Write to the sender if you think this is a mistake.',
  },
  'key-destroyed': {
    title: 'This document has been destroyed.',
    next: 'Nobody can open it any more.',
  },
  'prove-again': {
    title: 'Your email address has to be proven again.',
    next: 'The sender requires this from time to time. Prove it with a code, and you can read on.',
  },
  'device-not-accepted': {
    title: 'This document opens only on a remembered device.',
    next:
      'This device is for one visit only. Use your own device, or prove your email address ' +
      'again and remember this one.',
  },
  'too-many-devices': {
    title: 'You have opened this on as many devices as you may.',
    next: 'Use one of those, or write to the sender.',
  },
  'network-not-allowed': {
    title: 'This document does not open from this network.',
    next: 'Use the agreed network, for example at your office, or write to the sender.',
  },
  'place-not-allowed': {
    title: 'This document does not open from where you seem to be.',
    next: 'Places are estimated from your IP address and can be wrong. Write to the sender if this one is.',
  },
  'hours-not-allowed': {
    title: 'This document is closed at this hour.',
    next: 'Open it again during the agreed hours, from the same link.',
  },
  'opens-used-up': {
    title: 'You have opened this as often as you may.',
    next: 'Write to the sender if you need it once more.',
  },
  'condition-unknown': {
    title: 'This document cannot be opened at present.',
    next: 'It has a condition that is not understood here. Write to the sender.',
  },
  'read-not-allowed': {
    title: 'The sender’s organisation does not allow this document to be read at present.',
    next: 'Write to the sender.',
  },
};

const englishWithheld: WithheldWords = {
  'not-given': 'was not given to you',
  'prints-used-up': 'is used up: every copy you were given has been made',
  'needs-unlimited-print': 'is not possible while prints are limited',
  'needs-keep': 'is not possible while no copy may be kept',
  'above-ceiling': 'is not allowed by the sender’s organisation',
};

/** What a refused person is told: what happened, and what they can do. */
export const refusalWords: Readonly<Record<Language, RefusalWords>> = { en: englishRefusals };

/** Why a right is withheld, to be read behind the right's name. */
export const withheldWords: Readonly<Record<Language, WithheldWords>> = { en: englishWithheld };

import type { RefusalReason, Withheld } from '@/core/policy/decide';

/** What a refused person is told: what happened, and what they can do. */
export const refusalWords: Record<RefusalReason, { readonly title: string; readonly next: string }> = {
  'identity-not-proven': { title: 'Your address has not been proven in this browser.', next: 'Prove it with a code, and you can read on.' },
  'not-addressed': { title: 'This was not sent to this address.', next: 'If it reached you at another of your addresses, use that one. Otherwise ask whoever gave you the link.' },
  'recipient-blocked': { title: 'Access for this address has been stopped.', next: 'Write to the sender if you think this is a mistake.' },
  'document-revoked': { title: 'The sender has withdrawn this document.', next: 'Nobody can open it at present. Write to the sender if you still need it.' },
  'not-yet': { title: 'It is not time yet.', next: 'You can open this document later, from the same link.' },
  expired: { title: 'Your access to this document has ended.', next: 'Write to the sender if you need more time.' },
  revoked: { title: 'The sender has ended your access to this document.', next: 'Write to the sender if you think this is a mistake.' },
  'key-destroyed': { title: 'This document has been destroyed.', next: 'Nobody can open it any more.' },
};

/** Why a right is withheld, to be read behind the right's name. */
export const withheldWords: Record<Withheld, string> = {
  'not-given': 'was not given to you',
  'prints-used-up': 'is used up: every copy you were given has been made',
  'needs-unlimited-print': 'is not possible while prints are limited',
};

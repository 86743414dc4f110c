import type { Delivery, DeliveryForm } from '@/core/policy/delivery';

/** The ways of delivery, with what each means for the sender. */
export const deliveryWords: Record<Delivery, { readonly name: string; readonly hint: string }> = {
  mail: {
    name: 'Mail to each person',
    hint: 'Embargo sends it; the ledger says when it arrived.',
  },
  'by-hand': {
    name: 'I hand it over myself',
    hint: 'No mail is sent. The links still ask for proof of the email address.',
  },
};

/** What is handed over, with what each means. */
export const formWords: Record<DeliveryForm, { readonly name: string; readonly hint: string }> = {
  link: { name: 'A link', hint: 'The document stays here; its pages are shown after the link.' },
  file: {
    name: 'A protected file',
    hint: 'The document travels encrypted inside a PDF whose first page leads to the proof.',
  },
  unprotected: {
    name: 'Unprotected',
    hint: 'The document itself, in the clear. Nothing can be changed or revoked once it is sent.',
  },
  both: { name: 'Both', hint: 'The link, and the encrypted document as well.' },
};

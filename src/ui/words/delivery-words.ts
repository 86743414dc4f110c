import type { DELIVERIES } from '@/contracts/dispatch';
import type { DeliveryForm } from '@/core/policy/delivery';

/** The ways of delivery, with what each means for the sender. */
export const deliveryWords: Record<
  (typeof DELIVERIES)[number],
  { readonly name: string; readonly hint: string }
> = {
  mail: {
    name: 'Mail it to each person',
    hint: 'Embargo sends it; the record says when it arrived.',
  },
  'by-hand': {
    name: 'I carry it myself',
    hint: 'No mail goes out. What you carry asks for the proof that it was made for.',
  },
};

/** What is handed over, with what each means. */
export const formWords: Record<DeliveryForm, { readonly name: string; readonly hint: string }> = {
  link: { name: 'A link', hint: 'The document stays here; its pages are shown behind the link.' },
  file: {
    name: 'A protected file',
    hint: 'The document travels encrypted inside a PDF whose first page leads to the proof.',
  },
  unprotected: {
    name: 'Unprotected',
    hint: 'The document itself, in the clear. Nothing here reaches it once it has left.',
  },
  both: { name: 'Both', hint: 'The link, and the encrypted document to keep beside it.' },
};

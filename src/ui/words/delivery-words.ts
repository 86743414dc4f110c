import type { DELIVERIES } from '@/contracts/dispatch';

/** The ways of delivery, with what each means for the sender. */
export const deliveryWords: Record<(typeof DELIVERIES)[number], { readonly name: string; readonly hint: string }> = {
  mail: { name: 'Mail each person their link', hint: 'Embargo sends it; the record says when it arrived.' },
  'by-hand': { name: 'I carry the links myself', hint: 'No mail goes out. Each link works for its one address only.' },
};

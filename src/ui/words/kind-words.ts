import type { Kind } from '@/core/insight/kinds';

/** The tallies of the ledger. */
export const kindWords: Record<Kind, string> = {
  opened: 'opened',
  read: 'pages shown',
  taken: 'printed, copied, kept',
  refused: 'refused',
  sent: 'sent',
  changed: 'changed',
  staff: 'staff',
  proof: 'codes and keys',
};

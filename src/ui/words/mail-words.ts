import type { HandedOver } from '@/contracts/dispatch';

/** Where a message is. */
export const mailStateWords: Record<HandedOver['state'], string> = {
  waiting: 'on the way',
  delivered: 'delivered',
  returned: 'came back',
  failed: 'not delivered',
  stopped: 'stopped',
};

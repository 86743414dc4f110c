import type { DispatchState } from '@/contracts/dispatch-list';

/** Where a dispatch stands, as a filter of the list. */
export const dispatchStateWords: Record<DispatchState, string> = {
  active: 'Active',
  over: 'Ended for all',
  'never-opened': 'Never opened',
  'not-delivered': 'Mail not delivered',
  asked: 'Request waiting',
};

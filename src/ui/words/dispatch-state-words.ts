import type { DispatchState } from '@/contracts/dispatch-list';

/** Where a dispatch stands, as a filter of the list. */
export const dispatchStateWords: Record<DispatchState, string> = {
  active: 'Somebody can open it',
  over: 'Nobody can open it any more',
  'never-opened': 'Never opened',
  'not-delivered': 'Mail not delivered',
  asked: 'With a request',
};

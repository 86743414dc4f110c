import type { SharedDocument } from '@/contracts/reader';

/** Whether opening it spends one of a number of opens: then somebody has to say so. */
export function isCounted({ state }: SharedDocument): boolean {
  return state.open && state.opensLeft !== null;
}

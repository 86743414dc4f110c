import { z } from 'zod';
import { isId, type ViewId } from '@/core/base/ids';

/** The lists whose views can be saved. */
const VIEW_PLACES = ['ledger', 'dispatches'] as const;
export type ViewPlace = (typeof VIEW_PLACES)[number];

const viewId = z.custom<ViewId>(
  (value) => typeof value === 'string' && isId('view', value),
  'no such view',
);
/** `query`: what stands behind the question mark of the view's address. */
export const keepViewInput = z.object({
  place: z.enum(VIEW_PLACES),
  name: z.string().trim().min(1, 'the view needs a name').max(60),
  query: z.string().max(1_000),
});
export type KeepViewInput = z.infer<typeof keepViewInput>;
export const viewInput = z.object({ id: viewId });
export type SavedView = { readonly id: ViewId; readonly name: string; readonly query: string };

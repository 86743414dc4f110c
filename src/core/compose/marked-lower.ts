import { suggestMarking } from '@/core/content/suggest';
import type { Situation } from '@/core/compose/concerns';

type Marking = { readonly id: string; readonly name: string };

/**
 * Where a message names a marking below the strictest of the documents it carries.
 *
 * @param markings in their order, the strictest last
 * @param carried the markings of the documents
 */
export function markedLower(
  markings: readonly Marking[],
  carried: readonly (string | null)[],
  { subject, note }: { readonly subject: string; readonly note: string },
): Situation['markedLower'] {
  const order = markings.map(({ id }) => id);
  const strictest = Math.max(-1, ...carried.map((id) => (id === null ? -1 : order.indexOf(id))));
  const isLower = (text: string): boolean => {
    const named = suggestMarking(markings, { fileName: '', title: '', text });
    return named !== null && order.indexOf(named.id) < strictest;
  };
  if (isLower(subject)) return 'subject';
  return isLower(note) ? 'note' : null;
}

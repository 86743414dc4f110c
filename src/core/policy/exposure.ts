import { HOUR, type Moment } from '@/core/base/time';
import type { DocumentId, RecipientId } from '@/core/base/ids';

/** Somebody who opened a document and may go on reading without asking again. */
export type Held = {
  readonly document: DocumentId;
  readonly recipient: RecipientId;
  /** When they last asked. */
  readonly checkedAt: Moment;
  /** How long they need not ask again, in ms; 0: they ask at every page. */
  readonly offline: number;
  /** When their access ends anyhow; `null`: never. */
  readonly until: Moment | null;
};

/** Who could still read, and until when. Ends are in ms. */
export type Exposure = {
  /** Each (document, recipient) that could still read, the longest first. */
  readonly pairs: readonly {
    readonly document: DocumentId;
    readonly recipient: RecipientId;
    readonly until: Moment;
  }[];
  /** How many pairs remain readable from each hour on, beginning with the cut, up to the hour at which none does. */
  readonly curve: readonly { readonly at: Moment; readonly readable: number }[];
  /** When everybody is shut out. */
  readonly shutOutAt: Moment;
};

/**
 * Who could still read if access were cut at this moment: anyone who was allowed to go on without
 * asking, until that ends or their access does. With nobody allowed to, everybody is shut out at
 * once.
 */
export function exposure(held: readonly Held[], cutAt: Moment): Exposure {
  const last = new Map<string, Exposure['pairs'][number]>();
  for (const { document, recipient, checkedAt, offline, until } of held) {
    const end = Math.min(checkedAt + offline, until ?? Number.POSITIVE_INFINITY);
    const key = `${document} ${recipient}`;
    if (checkedAt <= cutAt && end > cutAt && end > (last.get(key)?.until ?? 0))
      last.set(key, { document, recipient, until: end });
  }
  const pairs = [...last.values()].sort(
    (a, b) => b.until - a.until || (a.document + a.recipient < b.document + b.recipient ? -1 : 1),
  );
  const shutOutAt = pairs[0]?.until ?? cutAt;
  const curve = Array.from({ length: Math.ceil((shutOutAt - cutAt) / HOUR) + 1 }, (_, hour) => {
    const at = cutAt + hour * HOUR;
    return { at, readable: pairs.filter(({ until }) => until > at).length };
  });
  return { pairs, curve, shutOutAt };
}

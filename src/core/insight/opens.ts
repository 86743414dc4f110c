import type { StaffId } from '@/core/base/ids';

/**
 * Whose opens of what are counted; absent: everybody's, of everything. Days are both inside. `own`:
 * only of what this member of staff answers for.
 */
export type OpensFilter = Readonly<
  Partial<
    Record<
      'document' | 'dispatch' | 'recipient' | 'organisation' | 'from' | 'to',
      string | undefined
    >
  >
> & { readonly own?: StaffId | undefined };

/** How often one person opened one document, or was refused, on the days that were asked about. */
export type PairCount = {
  readonly recipient: string;
  readonly document: string;
  readonly opens: number;
  readonly refused: number;
  readonly first: string | null;
  readonly last: string | null;
};
/** That one person was given one document. */
export type Given = { readonly recipient: string; readonly document: string };

export type PersonOpens = {
  readonly recipient: string;
  readonly cells: readonly Omit<PairCount, 'recipient'>[];
  readonly opens: number;
  readonly refused: number;
  readonly first: string | null;
  readonly last: string | null;
};
export type OpensTotals = {
  readonly opens: number;
  readonly openedBy: number;
  readonly refused: number;
  readonly refusedTo: number;
  readonly neverOpened: number;
};

function earlier(a: string | null, b: string | null): string | null {
  return a === null || (b !== null && b < a) ? b : a;
}

function later(a: string | null, b: string | null): string | null {
  return a === null || (b !== null && b > a) ? b : a;
}

function withCell(
  { recipient, cells, opens, refused, first, last }: PersonOpens,
  { recipient: _, ...cell }: PairCount,
): PersonOpens {
  return {
    recipient,
    cells: [...cells, cell],
    opens: opens + cell.opens,
    refused: refused + cell.refused,
    first: earlier(first, cell.first),
    last: later(last, cell.last),
  };
}

/**
 * People with what they opened and what they were given and never opened; those who opened most
 * come first, and those who never did last. `never`: only who left something unopened.
 */
export function opensByPerson(
  counts: readonly PairCount[],
  given: readonly Given[],
  never: boolean,
): { readonly people: readonly PersonOpens[]; readonly totals: OpensTotals } {
  const people = new Map<string, PersonOpens>();
  const seen = new Set<string>();
  const put = (count: PairCount): void => {
    const before = people.get(count.recipient) ?? {
      recipient: count.recipient,
      cells: [],
      opens: 0,
      refused: 0,
      first: null,
      last: null,
    };
    people.set(count.recipient, withCell(before, count));
    seen.add(`${count.recipient} ${count.document}`);
  };
  for (const count of counts) put(count);
  for (const { recipient, document } of given)
    if (!seen.has(`${recipient} ${document}`))
      put({ recipient, document, opens: 0, refused: 0, first: null, last: null });
  const all = [...people.values()].filter(
    ({ cells }) => !never || cells.some(({ opens }) => opens === 0),
  );
  const totals = {
    opens: all.reduce((sum, { opens }) => sum + opens, 0),
    openedBy: all.filter(({ opens }) => opens > 0).length,
    refused: all.reduce((sum, { refused }) => sum + refused, 0),
    refusedTo: all.filter(({ refused }) => refused > 0).length,
    neverOpened: all.filter(({ opens }) => opens === 0).length,
  };
  return {
    people: all.sort(
      (a, b) => b.opens - a.opens || b.refused - a.refused || (a.recipient < b.recipient ? -1 : 1),
    ),
    totals,
  };
}

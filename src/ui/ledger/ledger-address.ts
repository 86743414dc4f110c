import type { LedgerInput } from '@/contracts/ledger';
import type { Dimension } from '@/core/insight/filter';

type Change = { readonly [K in keyof LedgerInput]?: LedgerInput[K] | undefined };

/** The filter as a route takes it, with what is refused written out. */
export function takenBy({ without, ...filter }: LedgerInput) {
  return { ...filter, without: without?.map(({ dimension, value }) => `${dimension}:${value}`) };
}

/** The address of this view with some of its filters changed; filters live in the address alone. */
export function addressOf(path: string, filter: LedgerInput, change: Change): string {
  const query = new URLSearchParams();
  const wanted = takenBy({ ...filter, before: undefined, ...change });
  for (const [name, value] of Object.entries(wanted))
    for (const each of [value ?? []].flat()) query.append(name, String(each));
  const text = query.toString();
  return text === '' ? path : `${path}?${text}`;
}

function withValues(
  filter: LedgerInput,
  dimension: Dimension,
  values: readonly string[],
): LedgerInput {
  return { ...filter, [dimension]: values.length === 0 ? undefined : values };
}

/** The filter with a value that is not wanted any more, or not refused. */
export function without(filter: LedgerInput, dimension: Dimension, value: string): LedgerInput {
  const refused = (filter.without ?? []).filter(
    (each) => each.dimension !== dimension || each.value !== value,
  );
  return {
    ...withValues(
      filter,
      dimension,
      (filter[dimension] ?? []).filter((each) => each !== value),
    ),
    without: refused.length === 0 ? undefined : refused,
  };
}

/** The filter that also lets a value through. */
export function wanting(filter: LedgerInput, dimension: Dimension, value: string): LedgerInput {
  const rest = without(filter, dimension, value);
  return withValues(rest, dimension, [...(rest[dimension] ?? []), value]);
}

/** The filter that leaves a value out. */
export function refusing(filter: LedgerInput, dimension: Dimension, value: string): LedgerInput {
  const rest = without(filter, dimension, value);
  return { ...rest, without: [...(rest.without ?? []), { dimension, value }] };
}

/** Whether a value is among those that are wanted. */
export function isWanted(filter: LedgerInput, dimension: Dimension, value: string): boolean {
  return (filter[dimension] ?? []).some((each) => each === value);
}

'use client';

import type { LedgerInput, Named } from '@/contracts/ledger';
import { DIMENSIONS, type Dimension } from '@/core/insight/filter';
import { ChipLink } from '@/ui/shell/chips';
import { addressOf, isWanted, wanting, without } from '@/ui/ledger/ledger-address';
import { dayText } from '@/core/base/moment-text';
import { dimensionWords, valueText } from '@/ui/words/dimension-words';

type Chip = { readonly key: string; readonly label: string; readonly href: string };

/** `3 Mar 2026`, `3 Mar 2026 14:00`. */
function edgeText(text: string): string {
  const [day = '', time] = text.split('T');
  return time === undefined ? dayText(day) : `${dayText(day)} ${time}`;
}

function spanText({ from, to }: LedgerInput): string {
  if (from === to) return edgeText(from ?? '');
  return `${from === undefined ? 'the first' : edgeText(from)} – ${to === undefined ? 'the last' : edgeText(to)}`;
}

/** What a value is called; of a version, with what it is a version of. */
function nameOf(dimension: Dimension, value: string, named: Named): string {
  const name = named[value] ?? valueText(dimension, value);
  return dimension === 'version' ? `version ${name}` : name;
}

/** The filters in force, each of which can be taken off. */
function chipsOf(filter: LedgerInput, named: Named): Chip[] {
  const off = (dimension: Dimension, value: string): string =>
    addressOf('/ledger', without(filter, dimension, value), {});
  const { from, to } = filter;
  return [
    ...(from === undefined && to === undefined
      ? []
      : [
          {
            key: 'span',
            label: spanText(filter),
            href: addressOf('/ledger', filter, { from: undefined, to: undefined }),
          },
        ]),
    ...DIMENSIONS.flatMap((dimension) =>
      (filter[dimension] ?? []).map((value) => ({
        key: `${dimension} ${value}`,
        label:
          dimension === 'outcome'
            ? `only ${value}`
            : `${dimensionWords[dimension]}: ${nameOf(dimension, value, named)}`,
        href: off(dimension, value),
      })),
    ),
    ...(filter.without ?? []).map(({ dimension, value }) => ({
      key: `not ${dimension} ${value}`,
      label: `not ${dimensionWords[dimension]}: ${nameOf(dimension, value, named)}`,
      href: off(dimension, value),
    })),
    ...(filter.own === undefined
      ? []
      : [
          {
            key: 'own',
            label: 'only yours',
            href: addressOf('/ledger', filter, { own: undefined }),
          },
        ]),
  ];
}

/** Outcomes that are often looked for; the others are found by name. */
const OFTEN = ['refused', 'failed'] as const;

/**
 * The filters in force and those that are often wanted. `mine`: whether one may choose to see only
 * what is one's own.
 */
export function FilterChips({
  filter,
  named,
  mine,
}: {
  readonly filter: LedgerInput;
  readonly named: Named;
  readonly mine: boolean;
}) {
  const chips = chipsOf(filter, named);
  return (
    <>
      {chips.map(({ key, label, href }) => (
        <ChipLink className="on" key={key} href={href} aria-label={`Remove the filter ${label}`}>
          {label} ✕
        </ChipLink>
      ))}
      {chips.length > 1 && <ChipLink href="/ledger">Clear filters</ChipLink>}
      {OFTEN.filter((outcome) => !isWanted(filter, 'outcome', outcome)).map((outcome) => (
        <ChipLink
          key={outcome}
          href={addressOf('/ledger', wanting(filter, 'outcome', outcome), {})}
        >
          {(filter.outcome ?? []).length === 0 ? 'only' : 'also'} {outcome}
        </ChipLink>
      ))}
      {mine && filter.own === undefined && (
        <ChipLink href={addressOf('/ledger', filter, { own: 'yes' })}>only yours</ChipLink>
      )}
    </>
  );
}

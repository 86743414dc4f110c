import type { Pasted } from '@/core/compose/pasted';
import { rowOf, type Row } from '@/core/compose/sheet';

/** Rows for what was typed or pasted. */
export function pastedRows({ people, domains }: Pasted): Row[] {
  return [
    ...people.map(({ address, name, organisation }) =>
      rowOf(address, 'person', {
        name: name.slice(0, 120),
        organisation: organisation.slice(0, 120),
      }),
    ),
    ...domains.map((domain) => rowOf(domain, 'domain')),
  ];
}

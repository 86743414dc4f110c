import Papa from 'papaparse';
import { cellIn, columnOf, nameIn } from '@/core/people/columns';
import type { LineProblem, RawPerson } from '@/core/people/person';

/**
 * People from CSV (RFC 4180), whatever usual sign separates the fields; columns by their head, or
 * the addresses alone where there is none.
 */
export function peopleFromCsv(text: string): {
  readonly people: readonly RawPerson[];
  readonly problems: readonly LineProblem[];
} {
  const { data, errors } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    delimitersToGuess: [',', ';', '\t', '|'],
  });
  const problems = errors
    .filter(({ type }) => type === 'Quotes')
    .map(({ row }): LineProblem => ({ line: (row ?? 0) + 1, what: 'a quote is not closed here' }));
  const [head = []] = data;
  const found = head.map(columnOf);
  const headed = found.includes('address');
  let next = 1;
  const people = data.flatMap((row, index): RawPerson[] => {
    const line = next;
    // A quoted field may go on over several lines.
    next += 1 + row.reduce((sum, cell) => sum + (cell.match(/\n/g)?.length ?? 0), 0);
    if (row.every((cell) => cell.trim() === '')) return [];
    if (headed) {
      if (index === 0) return [];
      return [
        {
          line,
          address: cellIn(found, row, 'address') ?? '',
          name: nameIn(found, row),
          organisation: cellIn(found, row, 'organisation'),
          zone: cellIn(found, row, 'zone'),
          language: cellIn(found, row, 'language'),
        },
      ];
    }
    const address = row.find((cell) => cell.includes('@'));
    return [
      {
        line,
        address: address ?? row.join(' '),
        name: row.find((cell) => cell !== address && cell.trim() !== ''),
      },
    ];
  });
  return { people, problems };
}

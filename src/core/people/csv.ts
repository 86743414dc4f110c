import Papa from 'papaparse';
import { cellIn, columnOf, nameIn, namesIn } from '@/core/people/columns';
import type { LineProblem, RawPerson } from '@/core/people/person';

const SEPARATORS = [',', ';', '\t', '|'];

/** The sign that makes a head of the first line; empty where it has none, and it has to be guessed. */
function separatorOf(text: string): string {
  const [head = ''] = text.split(/\r\n|\n|\r/, 1);
  const found = SEPARATORS.map((sign) => {
    const columns = head.split(sign).map((cell) => columnOf(cell.replaceAll('"', '')));
    const known = columns.filter((column) => column !== undefined);
    return { sign, known: known.includes('address') ? known.length : 0 };
  });
  const best = found.reduce((a, b) => (b.known > a.known ? b : a));
  return best.known > 1 ? best.sign : '';
}

/**
 * People from CSV (RFC 4180), whatever usual sign separates the fields; columns by their head, or
 * the addresses alone where there is none.
 */
export function peopleFromCsv(text: string): {
  readonly people: readonly RawPerson[];
  readonly problems: readonly LineProblem[];
} {
  const bare = text.replace(/^\uFEFF/, '');
  const { data, errors } = Papa.parse<string[]>(bare, {
    delimiter: separatorOf(bare),
    delimitersToGuess: SEPARATORS,
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
          ownId: cellIn(found, row, 'ownId'),
          groups: namesIn(cellIn(found, row, 'groups')),
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

import Papa from 'papaparse';
import type { LineProblem, RawPerson } from '@/core/people/person';

type Column = 'address' | 'name' | 'given' | 'family' | 'organisation' | 'zone' | 'language';

/** What columns are usually called, without case, spaces and signs. */
const names: Readonly<Record<Column, readonly string[]>> = {
  address: ['address', 'email', 'emailaddress', 'mail', 'email1value', 'primaryemail'],
  name: ['name', 'displayname', 'fullname', 'cn', 'commonname'],
  given: ['givenname', 'firstname', 'given', 'first'],
  family: ['familyname', 'lastname', 'surname', 'sn', 'last', 'family'],
  organisation: ['organisation', 'organization', 'company', 'org', 'o', 'organizationname'],
  zone: ['zone', 'timezone', 'tz'],
  language: ['language', 'lang', 'locale', 'preferredlanguage'],
};
const columns = new Map(
  Object.entries(names).flatMap(([column, all]) =>
    all.map((name): [string, Column] => [name, column as Column]),
  ),
);

function columnOf(head: string): Column | undefined {
  return columns.get(head.toLowerCase().replaceAll(/[^a-z0-9]/g, ''));
}

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
  const at = (row: readonly string[], column: Column): string | undefined => {
    const place = found.indexOf(column);
    return place < 0 ? undefined : row[place]?.trim();
  };
  let next = 1;
  const people = data.flatMap((row, index): RawPerson[] => {
    const line = next;
    // A quoted field may go on over several lines.
    next += 1 + row.reduce((sum, cell) => sum + (cell.match(/\n/g)?.length ?? 0), 0);
    if (row.every((cell) => cell.trim() === '')) return [];
    if (headed) {
      if (index === 0) return [];
      const full =
        at(row, 'name') ??
        [at(row, 'given'), at(row, 'family')]
          .filter((part) => part !== undefined && part !== '')
          .join(' ');
      return [
        {
          line,
          address: at(row, 'address') ?? '',
          name: full,
          organisation: at(row, 'organisation'),
          zone: at(row, 'zone'),
          language: at(row, 'language'),
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

export type PeopleColumn =
  | 'address'
  | 'name'
  | 'given'
  | 'family'
  | 'organisation'
  | 'zone'
  | 'language'
  | 'ownId'
  | 'groups';

/** What columns are usually called, without case, spaces and signs. */
const NAMES: Readonly<Record<PeopleColumn, readonly string[]>> = {
  address: ['address', 'email', 'emailaddress', 'mail', 'email1value', 'primaryemail'],
  name: ['name', 'displayname', 'fullname', 'cn', 'commonname'],
  given: ['givenname', 'firstname', 'given', 'first'],
  family: ['familyname', 'lastname', 'surname', 'sn', 'last', 'family'],
  organisation: ['organisation', 'organization', 'company', 'org', 'o', 'organizationname'],
  zone: ['zone', 'timezone', 'tz'],
  language: ['language', 'lang', 'locale', 'preferredlanguage'],
  ownId: ['identifier', 'id', 'ownid', 'number', 'customernumber', 'contactid', 'employeenumber'],
  groups: ['groups', 'group', 'categories', 'category', 'lists'],
};
const columns = new Map(
  Object.entries(NAMES).flatMap(([column, all]) =>
    all.map((name): [string, PeopleColumn] => [name, column as PeopleColumn]),
  ),
);

/** The column that goes by this head; `undefined` where none does. */
export function columnOf(head: string): PeopleColumn | undefined {
  return columns.get(head.toLowerCase().replaceAll(/[^a-z0-9]/g, ''));
}

/** What a row says in a column, by the columns that its table has; `undefined` where there is none. */
export function cellIn(
  found: readonly (PeopleColumn | undefined)[],
  row: readonly string[],
  column: PeopleColumn,
): string | undefined {
  const place = found.indexOf(column);
  return place < 0 ? undefined : row[place]?.trim();
}

/** The whole name in a row, also where it stands in two columns. */
export function nameIn(
  found: readonly (PeopleColumn | undefined)[],
  row: readonly string[],
): string {
  return (
    cellIn(found, row, 'name') ??
    [cellIn(found, row, 'given'), cellIn(found, row, 'family')]
      .filter((part) => part !== undefined && part !== '')
      .join(' ')
  );
}

/** Several names in one cell, whatever usual sign stands between them. */
export function namesIn(cell: string | undefined): string[] {
  return (cell ?? '').split(/[;|,]/).flatMap((name) => {
    const trimmed = name.trim();
    return trimmed === '' ? [] : [trimmed];
  });
}

import { normaliseAddress } from '@/core/policy/address';
import { peopleFromCsv } from '@/core/people/csv';
import { peopleFromLdif } from '@/core/people/ldif';
import { peopleFromVcard } from '@/core/people/vcard';
import type { LineProblem, RawPerson, ReadPeople, StatedPerson } from '@/core/people/person';

export type PeopleFormat = 'csv' | 'ldif' | 'vcard';
const LONGEST = 120;
const LONGEST_GROUP = 80;

/** Which format a text is in, by how it begins. */
export function formatOf(text: string): PeopleFormat {
  const start = text.replace(/^\uFEFF/, '').trimStart();
  if (/^BEGIN:VCARD/i.test(start)) return 'vcard';
  return /^(version:\s*1\s|dn::?\s|#[^\n]*\n(?:version|dn)::?)/i.test(start) ? 'ldif' : 'csv';
}

const readers = { csv: peopleFromCsv, ldif: peopleFromLdif, vcard: peopleFromVcard };
type Checks = {
  readonly isZone: (text: string) => boolean;
  readonly isLanguage: (text: string) => boolean;
};

function remembering(check: (text: string) => boolean): (text: string) => boolean {
  const known = new Map<string, boolean>();
  return (text) => {
    const found = known.get(text) ?? check(text);
    known.set(text, found);
    return found;
  };
}

function noAddress(stated: string): string {
  return stated === ''
    ? 'there is no email address here'
    : `“${stated.slice(0, 80)}” is not an email address`;
}

/**
 * People as a file states them, with what could not be taken, by line. The first of two lines with
 * one address counts.
 */
export function readPeople(
  text: string,
  checks: Checks,
): ReadPeople & { readonly format: PeopleFormat } {
  const format = formatOf(text);
  const { people: raw, problems: unread } = readers[format](text);
  const problems: LineProblem[] = [...unread];
  const first = new Map<string, number>();
  const ownIds = new Map<string, number>();
  // Thousands of lines share a few zones, and checking one takes a while.
  const [isZone, isLanguage] = [remembering(checks.isZone), remembering(checks.isLanguage)];
  const leftOut = (line: number, what: string) => {
    problems.push({ line, what: `${what}; it is left out` });
  };
  /** An identifier that no line before has; `null` where there is none, or where it is left out. */
  const ownIdOn = (line: number, stated: string): string | null => {
    const id = stated.trim().slice(0, LONGEST);
    if (id === '') return null;
    const same = ownIds.get(id);
    if (same === undefined) {
      ownIds.set(id, line);
      return id;
    }
    leftOut(line, `identifier ${id} stands on line ${String(same)} already`);
    return null;
  };
  /** A value that passes its check; `null` where there is none, or where it is left out. */
  const kept = (
    line: number,
    value: string,
    isKnown: (value: string) => boolean,
    what: string,
  ): string | null => {
    if (value === '' || isKnown(value)) return value === '' ? null : value;
    leftOut(line, `“${value}” is not ${what}`);
    return null;
  };
  const check = ({
    line,
    address: stated,
    name = '',
    organisation = '',
    zone = '',
    language = '',
    ownId = '',
    groups = [],
  }: RawPerson): StatedPerson[] => {
    const address = normaliseAddress(stated);
    if (address === null) {
      problems.push({ line, what: noAddress(stated.trim()) });
      return [];
    }
    const before = first.get(address);
    if (before !== undefined) {
      problems.push({ line, what: `${address} stands on line ${String(before)} already` });
      return [];
    }
    first.set(address, line);
    const known = {
      zone: kept(line, zone, isZone, 'a time zone'),
      language: kept(line, language, isLanguage, 'a language'),
    };
    if (name.length > LONGEST || organisation.length > LONGEST)
      leftOut(line, 'a name is longer than 120 characters');
    return [
      {
        line,
        address,
        name: name.slice(0, LONGEST).trim(),
        organisation: organisation.slice(0, LONGEST).trim(),
        ...known,
        ownId: ownIdOn(line, ownId),
        groups: [...new Set(groups.map((group) => group.slice(0, LONGEST_GROUP).trim()))],
      },
    ];
  };
  return { format, people: raw.flatMap(check), problems: problems.sort((a, b) => a.line - b.line) };
}

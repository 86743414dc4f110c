import { normaliseAddress } from '@/core/policy/address';
import { peopleFromCsv } from '@/core/people/csv';
import { peopleFromLdif } from '@/core/people/ldif';
import { peopleFromVcard } from '@/core/people/vcard';
import type { LineProblem, RawPerson, ReadPeople, StatedPerson } from '@/core/people/person';

export type PeopleFormat = 'csv' | 'ldif' | 'vcard';
const LONGEST = 120;

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
  // Thousands of lines share a few zones, and checking one takes a while.
  const [isZone, isLanguage] = [remembering(checks.isZone), remembering(checks.isLanguage)];
  const check = ({
    line,
    address: stated,
    name = '',
    organisation = '',
    zone = '',
    language = '',
  }: RawPerson): StatedPerson[] => {
    const address = normaliseAddress(stated);
    if (address === null) {
      problems.push({
        line,
        what:
          stated.trim() === ''
            ? 'there is no email address here'
            : `“${stated.trim().slice(0, 80)}” is not an email address`,
      });
      return [];
    }
    const before = first.get(address);
    if (before !== undefined) {
      problems.push({ line, what: `${address} stands on line ${String(before)} already` });
      return [];
    }
    first.set(address, line);
    const wrong = [
      zone !== '' && !isZone(zone) ? `“${zone}” is not a time zone` : null,
      language !== '' && !isLanguage(language) ? `“${language}” is not a language` : null,
      name.length > LONGEST || organisation.length > LONGEST
        ? 'a name is longer than 120 characters'
        : null,
    ].filter((each) => each !== null);
    problems.push(...wrong.map((what) => ({ line, what: `${what}; it is left out` })));
    return [
      {
        line,
        address,
        name: name.slice(0, LONGEST).trim(),
        organisation: organisation.slice(0, LONGEST).trim(),
        zone: zone !== '' && isZone(zone) ? zone : null,
        language: language !== '' && isLanguage(language) ? language : null,
      },
    ];
  };
  return { format, people: raw.flatMap(check), problems: problems.sort((a, b) => a.line - b.line) };
}

import { csvField } from '@/core/base/csv';
import { utf8 } from '@/core/base/bytes';
import { base64 } from '@scure/base';
import type { KnownPerson } from '@/core/people/plan';
import type { PeopleFormat } from '@/core/people/read';

type Person = Omit<KnownPerson, 'id'>;

function csv(people: readonly Person[]): string {
  return [
    'address,name,organisation,zone,language',
    ...people.map(({ address, name, organisation, zone, language }) =>
      [address, name, organisation, zone ?? '', language ?? ''].map(csvField).join(','),
    ),
  ]
    .map((line) => `${line}\r\n`)
    .join('');
}

/** An LDIF line; what is not safe as it stands goes in base64 (RFC 2849, SAFE-STRING). */
function ldifLine(name: string, value: string): string {
  return value === ''
    ? ''
    : /^[\x21-\x39\x3b\x3d-\x7e][\x20-\x7e]*$/.test(value) && !value.endsWith(' ')
      ? `${name}: ${value}\n`
      : `${name}:: ${base64.encode(utf8(value))}\n`;
}

function ldif(people: readonly Person[]): string {
  const records = people.map(({ address, name, organisation, language }) =>
    [
      ldifLine('dn', `mail=${address.replaceAll(/[,+"\\<>;=]/g, '\\$&')}`),
      'objectClass: inetOrgPerson\n',
      ldifLine('mail', address),
      ldifLine('cn', name),
      ldifLine('o', organisation),
      ldifLine('preferredLanguage', language ?? ''),
      '\n',
    ].join(''),
  );
  return `version: 1\n\n${records.join('')}`;
}

function escape(text: string): string {
  return text.replaceAll(/[\\,;]/g, '\\$&').replaceAll('\n', '\\n');
}

function vcard(people: readonly Person[]): string {
  return people
    .map(({ address, name, organisation, zone, language }) =>
      [
        'BEGIN:VCARD',
        'VERSION:4.0',
        `FN:${escape(name === '' ? address : name)}`,
        `EMAIL:${escape(address)}`,
        ...(organisation === '' ? [] : [`ORG:${escape(organisation)}`]),
        ...(zone === null ? [] : [`TZ:${zone}`]),
        ...(language === null ? [] : [`LANG:${language}`]),
        'END:VCARD',
      ]
        .map((line) => `${line}\r\n`)
        .join(''),
    )
    .join('');
}

const writers = { csv, ldif, vcard };

/**
 * People as a file in a format. In CSV, what a spreadsheet would take for a formula is disarmed;
 * LDIF has no place for a zone.
 */
export function writePeople(people: readonly Person[], format: PeopleFormat): string {
  return writers[format](people);
}

import { csvField } from '@/core/base/csv';
import { utf8 } from '@/core/base/bytes';
import { base64 } from '@scure/base';
import type { KnownPerson } from '@/core/people/plan';
import type { PeopleFormat } from '@/core/people/read';

type Person = Omit<KnownPerson, 'id'> & { readonly groups?: readonly string[] };

function csv(people: readonly Person[]): string {
  return [
    'address,name,organisation,zone,language,identifier,groups',
    ...people.map(({ address, name, organisation, zone, language, ownId, groups = [] }) =>
      [address, name, organisation, zone ?? '', language ?? '', ownId ?? '', groups.join('; ')]
        .map(csvField)
        .join(','),
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

/** A value in a distinguished name (RFC 4514, section 2.4). */
function dnValue(text: string): string {
  return text.replaceAll(/[,+"\\<>;=]/g, '\\$&');
}

function ldif(people: readonly Person[]): string {
  const records = people.map(({ address, name, organisation, language, ownId, groups = [] }) =>
    [
      ldifLine('dn', `mail=${dnValue(address)}`),
      'objectClass: inetOrgPerson\n',
      ldifLine('mail', address),
      ldifLine('cn', name),
      ldifLine('o', organisation),
      ldifLine('preferredLanguage', language ?? ''),
      ldifLine('employeeNumber', ownId ?? ''),
      ...groups.map((group) => ldifLine('memberOf', `cn=${dnValue(group)}`)),
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
    .map(({ address, name, organisation, zone, language, ownId, groups = [] }) =>
      [
        'BEGIN:VCARD',
        'VERSION:4.0',
        `FN:${escape(name === '' ? address : name)}`,
        `EMAIL:${escape(address)}`,
        ...(organisation === '' ? [] : [`ORG:${escape(organisation)}`]),
        ...(zone === null ? [] : [`TZ:${zone}`]),
        ...(language === null ? [] : [`LANG:${language}`]),
        ...(ownId === null ? [] : [`UID:${escape(ownId)}`]),
        ...(groups.length === 0 ? [] : [`CATEGORIES:${groups.map(escape).join(',')}`]),
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

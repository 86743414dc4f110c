import type { LineProblem, RawPerson } from '@/core/people/person';
import { fromUtf8 } from '@/core/base/bytes';
import { base64 } from '@scure/base';

type Line = { readonly line: number; readonly name: string; readonly value: string };

/** A value after `::` is UTF-8 in base64 (RFC 2849). */
function valueOf(text: string): string | null {
  if (!text.startsWith(':')) return text.trim();
  try {
    return fromUtf8(base64.decode(text.slice(1).trim()));
  } catch {
    return null;
  }
}

/** The value of the first part of a distinguished name (RFC 4514): `cn=Bidders,ou=x` is `Bidders`. */
function rdnOf(name: string): string {
  const [first = ''] = name.split(/(?<!\\),/);
  return first
    .slice(first.indexOf('=') + 1)
    .replaceAll(/\\(.)/g, '$1')
    .trim();
}

/** Lines with those that go on on the next one put together, and remarks left out (RFC 2849). */
function logicalLines(text: string): { readonly line: number; readonly text: string }[] {
  const lines: { line: number; text: string }[] = [];
  text.split(/\r\n|\n|\r/).forEach((each, index) => {
    const last = lines.at(-1);
    if (each.startsWith(' ') && last !== undefined && last.text !== '') last.text += each.slice(1);
    else lines.push({ line: index + 1, text: each });
  });
  return lines.filter((each) => !each.text.startsWith('#'));
}

/**
 * People from LDIF content records (RFC 2849): mail, cn or displayName, o, preferredLanguage,
 * employeeNumber or uid, memberOf.
 */
export function peopleFromLdif(text: string): {
  readonly people: readonly RawPerson[];
  readonly problems: readonly LineProblem[];
} {
  const problems: LineProblem[] = [];
  const people: RawPerson[] = [];
  let entry: Line[] = [];
  const close = (): void => {
    const [first] = entry;
    const value = (...wanted: string[]): string | undefined =>
      wanted
        .map((name) => entry.find((each) => each.name === name)?.value)
        .find((each) => each !== undefined);
    const address = value('mail', 'rfc822mailbox');
    if (first !== undefined && address !== undefined)
      people.push({
        line: first.line,
        address,
        name: value('displayname', 'cn'),
        organisation: value('o', 'company'),
        language: value('preferredlanguage'),
        ownId: value('employeenumber', 'uid'),
        groups: entry.flatMap(({ name, value: group }) =>
          name === 'memberof' ? [rdnOf(group)] : [],
        ),
      });
    else if (first?.name === 'dn' && value('objectclass') !== 'organizationalUnit')
      problems.push({ line: first.line, what: 'this entry has no email address' });
    entry = [];
  };
  for (const { line, text: content } of logicalLines(text)) {
    if (content === '') {
      close();
      continue;
    }
    const colon = content.indexOf(':');
    const name = content.slice(0, Math.max(0, colon)).toLowerCase().split(';')[0] ?? '';
    const value = colon < 1 ? null : valueOf(content.slice(colon + 1));
    if (value === null) problems.push({ line, what: 'this line is not LDIF' });
    else if (name !== 'version') entry.push({ line, name, value });
  }
  close();
  return { people, problems };
}

import type { LineProblem, RawPerson } from '@/core/people/person';

/** Backslashes before commas, semicolons, line feeds and themselves (RFC 6350, 3.4). */
function unescape(text: string): string {
  return text
    .replaceAll(/\\([\\,;nN])/g, (_whole, sign: string) =>
      sign === 'n' || sign === 'N' ? '\n' : sign,
    )
    .trim();
}

/** The parts of a structured value, split at semicolons that no backslash stands before. */
function parts(text: string): string[] {
  return text.split(/(?<!\\);/).map(unescape);
}

type Card = { readonly line: number; readonly fields: Map<string, string> };

function personOf({ line, fields }: Card): RawPerson | null {
  const address = fields.get('EMAIL');
  if (address === undefined) return null;
  const [family = '', given = ''] = parts(fields.get('N') ?? '');
  return {
    line,
    address: unescape(address).replace(/^mailto:/i, ''),
    name:
      unescape(fields.get('FN') ?? '') || [given, family].filter((part) => part !== '').join(' '),
    organisation: parts(fields.get('ORG') ?? '')[0],
    zone: fields.get('TZ'),
    language: fields.get('LANG'),
  };
}

/** People from vCards of version 3 or 4 (RFC 2426, RFC 6350), one behind another: the first address of each. */
export function peopleFromVcard(text: string): {
  readonly people: readonly RawPerson[];
  readonly problems: readonly LineProblem[];
} {
  const problems: LineProblem[] = [];
  const people: RawPerson[] = [];
  let card: Card | null = null;
  let last = '';
  text.split(/\r\n|\n|\r/).forEach((content, index) => {
    const line = index + 1;
    if (/^[ \t]/.test(content)) {
      if (card !== null && last !== '')
        card.fields.set(last, (card.fields.get(last) ?? '') + content.slice(1));
      return;
    }
    const [, group = '', value = ''] = /^((?:[^:"]|"[^"]*")*):(.*)$/.exec(content) ?? [];
    const name = (group.split(';')[0] ?? '').replace(/^.*\./, '').toUpperCase();
    last = '';
    if (name === 'BEGIN') card = { line, fields: new Map() };
    else if (name === 'END' && card !== null) {
      const person = personOf(card);
      if (person === null)
        problems.push({ line: card.line, what: 'this card has no email address' });
      else people.push(person);
      card = null;
    } else if (card !== null && name !== '' && !card.fields.has(name)) {
      card.fields.set(name, value);
      last = name;
    } else if (card === null && content.trim() !== '')
      problems.push({ line, what: 'this stands outside any card' });
  });
  const open = card as Card | null;
  if (open !== null) problems.push({ line: open.line, what: 'this card is cut short' });
  return { people, problems };
}

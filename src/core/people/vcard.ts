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

/** A card as it is read; `last`: the field that a folded line goes on with. */
type Card = { readonly line: number; readonly fields: Map<string, string>; last: string };

function personOf({ line, fields }: Card): RawPerson | null {
  const stated = fields.get('EMAIL');
  if (stated === undefined) return null;
  const address = unescape(stated).replace(/^mailto:/i, '');
  const [family = '', given = ''] = parts(fields.get('N') ?? '');
  const fullName =
    unescape(fields.get('FN') ?? '') || [given, family].filter((part) => part !== '').join(' ');
  return {
    line,
    address,
    // A card has to have a name, so one without carries the address instead.
    name: fullName === address ? '' : fullName,
    organisation: parts(fields.get('ORG') ?? '')[0],
    zone: fields.get('TZ'),
    language: fields.get('LANG'),
    ownId: fields.get('UID'),
    groups: (fields.get('CATEGORIES') ?? '')
      .split(/(?<!\\),/)
      .map(unescape)
      .filter((name) => name !== ''),
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
  text.split(/\r\n|\n|\r/).forEach((content, index) => {
    const line = index + 1;
    if (/^[ \t]/.test(content)) {
      goOn(card, content.slice(1));
      return;
    }
    const { name, value } = fieldOf(content);
    if (name === 'BEGIN') card = { line, fields: new Map(), last: '' };
    else if (card === null) {
      if (content.trim() !== '') problems.push({ line, what: 'this stands outside any card' });
    } else if (name === 'END') {
      const person = personOf(card);
      if (person === null)
        problems.push({ line: card.line, what: 'this card has no email address' });
      else people.push(person);
      card = null;
    } else put(card, name, value);
  });
  const open = card as Card | null;
  if (open !== null) problems.push({ line: open.line, what: 'this card is cut short' });
  return { people, problems };
}

/** A content line's name without its group, and its value. */
function fieldOf(content: string): { readonly name: string; readonly value: string } {
  const [, group = '', value = ''] = /^((?:[^:"]|"[^"]*")*):(.*)$/.exec(content) ?? [];
  return { name: (group.split(';')[0] ?? '').replace(/^.*\./, '').toUpperCase(), value };
}

/** Puts a field into a card; the first of a name counts. */
function put(card: Card, name: string, value: string): void {
  card.last = '';
  if (name === '' || card.fields.has(name)) return;
  card.fields.set(name, value);
  card.last = name;
}

/** Goes on with the field that was put last: a line was folded (RFC 6350, section 3.2). */
function goOn(card: Card | null, content: string): void {
  if (card === null || card.last === '') return;
  card.fields.set(card.last, (card.fields.get(card.last) ?? '') + content);
}

import { normaliseAddress, normaliseDomain, parseAddresses } from '@/core/policy/address';
import { cellIn, columnOf, nameIn } from '@/core/people/columns';

type PastedPerson = {
  readonly address: string;
  readonly name: string;
  readonly organisation: string;
};

/** Who was pasted: people, `@yard.example` for everyone there, and what could not be read. */
export type Pasted = {
  readonly people: readonly PastedPerson[];
  readonly domains: readonly string[];
  readonly unreadable: readonly string[];
};

/** A line of a table without a head: its address, and beside it a name and an organisation. */
function lineWithoutHead(cells: readonly string[]): PastedPerson | string | null {
  const filled = cells.map((cell) => cell.trim()).filter((cell) => cell !== '');
  if (filled.length === 0) return null;
  const stated = filled.find((cell) => normaliseAddress(cell) !== null);
  const [name = '', organisation = ''] = filled.filter((cell) => cell !== stated);
  const address = normaliseAddress(stated ?? '');
  return address === null ? filled.join(' ') : { address, name, organisation };
}

/** What was copied out of a spreadsheet: by the heads of its columns where it has them. */
function fromTable(text: string): Pasted {
  const rows = text.split(/\r?\n/).map((line) => line.split('\t'));
  const found = (rows[0] ?? []).map(columnOf);
  const isHeaded = found.includes('address');
  const people = new Map<string, PastedPerson>();
  const domains: string[] = [];
  const unreadable: string[] = [];
  for (const cells of isHeaded ? rows.slice(1) : rows) {
    const line = isHeaded ? lineUnderHead(found, cells) : lineWithoutHead(cells);
    if (line === null) continue;
    const domain = typeof line === 'string' ? normaliseDomain(line) : null;
    if (domain !== null) domains.push(domain);
    else if (typeof line === 'string') unreadable.push(line);
    else if (!people.has(line.address)) people.set(line.address, line);
  }
  return { people: [...people.values()], domains: [...new Set(domains)], unreadable };
}

function lineUnderHead(
  found: Parameters<typeof cellIn>[0],
  cells: readonly string[],
): PastedPerson | string | null {
  const whole = cells.join(' ').trim();
  if (whole === '') return null;
  const address = normaliseAddress(cellIn(found, cells, 'address') ?? '');
  if (address === null) return whole;
  return {
    address,
    name: nameIn(found, cells),
    organisation: cellIn(found, cells, 'organisation') ?? '',
  };
}

/**
 * Recipients out of typed or pasted text: addresses with any usual separator, `Name <address>`, or
 * columns of a spreadsheet with or without heads.
 */
export function parsePasted(text: string): Pasted {
  if (text.includes('\t')) return fromTable(text);
  const { addresses, domains, unreadable } = parseAddresses(text);
  return {
    people: addresses.map((each) => ({ ...each, organisation: '' })),
    domains,
    unreadable,
  };
}

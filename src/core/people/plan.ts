import { isOneSlipAway } from '@/core/policy/look-alike';
import type { LineProblem, StatedPerson } from '@/core/people/person';

export type KnownPerson = {
  readonly id: string;
  readonly address: string;
  readonly name: string;
  readonly organisation: string;
  readonly zone: string | null;
  readonly language: string | null;
  /** What the organisation itself calls them by; nobody else is called so. */
  readonly ownId: string | null;
};
export type Change<K extends KnownPerson> = {
  readonly before: K;
  readonly after: K;
  readonly line: number;
};
export type ImportPlan<K extends KnownPerson> = {
  readonly added: readonly StatedPerson[];
  readonly changed: readonly Change<K>[];
  /** What could not be taken because of somebody who is here. */
  readonly problems: readonly LineProblem[];
  /** How many are here already, just so. */
  readonly same: number;
  /** New domains that are one letter away from a known one. */
  readonly doubtful: readonly {
    readonly domain: string;
    readonly like: string;
    readonly people: number;
  }[];
};

function domainOf(address: string): string {
  return address.slice(address.indexOf('@') + 1);
}

const STATED = ['name', 'organisation', 'zone', 'language', 'ownId'] as const;

/** Somebody known, with what a file states of them; what it leaves empty stays as it is. */
function stating<K extends KnownPerson>(before: K, person: StatedPerson): K {
  return {
    ...before,
    name: person.name === '' ? before.name : person.name,
    organisation: person.organisation === '' ? before.organisation : person.organisation,
    zone: person.zone ?? before.zone,
    language: person.language ?? before.language,
    ownId: person.ownId ?? before.ownId,
  };
}

/** What bringing these people in would change. What a file leaves empty stays as it is, and nobody is removed. */
export function planImport<K extends KnownPerson>(
  stated: readonly StatedPerson[],
  known: ReadonlyMap<string, K>,
): ImportPlan<K> {
  const added: StatedPerson[] = [];
  const changed: Change<K>[] = [];
  let same = 0;
  const problems: LineProblem[] = [];
  const calledBy = new Map(
    Array.from(known.values()).flatMap(({ ownId, address }): [string, string][] =>
      ownId === null ? [] : [[ownId, address]],
    ),
  );
  for (const each of stated) {
    const { ownId, address, line } = each;
    const other = ownId === null ? undefined : calledBy.get(ownId);
    const isTaken = other !== undefined && other !== address;
    if (isTaken)
      problems.push({ line, what: `identifier ${String(ownId)} is ${other} here; it is left out` });
    const person = isTaken ? { ...each, ownId: null } : each;
    const before = known.get(person.address);
    if (before === undefined) {
      added.push(person);
      continue;
    }
    const after = stating(before, person);
    if (STATED.every((field) => after[field] === before[field])) same++;
    else changed.push({ before, after, line: person.line });
  }
  const domains = [...new Set(Array.from(known.keys(), domainOf))];
  const fresh = new Map<string, number>();
  for (const { address } of added)
    fresh.set(domainOf(address), (fresh.get(domainOf(address)) ?? 0) + 1);
  const doubtful = Array.from(fresh, ([domain, people]) => ({
    domain,
    people,
    like: domains.includes(domain)
      ? undefined
      : domains.find((each) => isOneSlipAway(each, domain)),
  })).flatMap(({ domain, people, like }) => (like === undefined ? [] : [{ domain, people, like }]));
  return { added, changed, problems, same, doubtful };
}

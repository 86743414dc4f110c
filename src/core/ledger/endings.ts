import { z } from 'zod';
import {
  isId,
  type DocumentId,
  type GrantId,
  type IdKind,
  type Id,
  type RecipientId,
  type StaffId,
} from '@/core/base/ids';
import type { Limits } from '@/core/policy/ceiling';
import type { Conditions } from '@/core/policy/conditions';
import { LEVELS } from '@/core/policy/levels';
import { RIGHTS, type Right } from '@/core/policy/rights';
import { LEAVES, WAYS, type Way } from '@/core/policy/rules';
import type { SenderLimits } from '@/core/policy/sender-limits';

const id = <K extends IdKind>(kind: K) =>
  z.custom<Id<K>>((value) => typeof value === 'string' && isId(kind, value));
const line = z.discriminatedUnion('of', [
  z.object({
    sequence: z.number().int(),
    of: z.literal('grant'),
    id: id('grant'),
    revoked: z.boolean(),
    until: z.number().int().nullable(),
    rights: z.array(z.enum(RIGHTS)),
    prints: z.number().int().nullable(),
    printsMade: z.number().int(),
    conditions: z.custom<Conditions>((value) => typeof value === 'object').nullish(),
  }),
  z.object({
    sequence: z.number().int(),
    of: z.literal('document'),
    id: id('document'),
    revoked: z.boolean(),
    destroyed: z.boolean(),
  }),
  z.object({
    sequence: z.number().int(),
    of: z.literal('recipient'),
    id: id('recipient'),
    blocked: z.boolean(),
  }),
  // What a level allows at most; limiting nothing, it was lifted.
  z.object({
    sequence: z.number().int(),
    of: z.literal('ceiling'),
    level: z.enum(LEVELS),
    subject: z.string(),
    limits: z.custom<Limits>((value) => typeof value === 'object'),
  }),
  z.object({
    sequence: z.number().int(),
    of: z.literal('staff'),
    id: id('staff'),
    disabled: z.boolean(),
    limits: z.custom<SenderLimits>((value) => typeof value === 'object').nullish(),
  }),
  // The ledger was put back to this entry: what follows belongs to one that goes on from there.
  z.object({ sequence: z.number().int(), of: z.literal('position') }),
  z.object({
    sequence: z.number().int(),
    of: z.literal('rule'),
    way: z.enum(WAYS),
    leave: z.enum(LEAVES),
  }),
]);

/**
 * How something stood after access to it changed, with the ledger's sequence then. A list of these
 * is kept outside the database, so that a backup from before can be brought to where access ended.
 */
export type Ending = z.infer<typeof line>;

/** What the newest line of each subject says. */
export type Endings = {
  readonly grants: ReadonlyMap<GrantId, Extract<Ending, { of: 'grant' }>>;
  readonly documents: ReadonlyMap<DocumentId, Extract<Ending, { of: 'document' }>>;
  readonly recipients: ReadonlyMap<RecipientId, Extract<Ending, { of: 'recipient' }>>;
  readonly staff: ReadonlyMap<StaffId, Extract<Ending, { of: 'staff' }>>;
  readonly ceilings: ReadonlyMap<string, Extract<Ending, { of: 'ceiling' }>>;
  readonly rules: ReadonlyMap<Way, Extract<Ending, { of: 'rule' }>>;
};

/** One line of the list, with its end. */
export function endingLine(ending: Ending): string {
  return `${JSON.stringify(ending)}\n`;
}

/** A line of the list; `null` where it is none, as the last one of a file can be after a power cut. */
export function parseEnding(text: string): Ending | null {
  try {
    return line.parse(JSON.parse(text));
  } catch {
    return null;
  }
}

/** The newest state of each subject among lines in the order they were written. */
export function newestEndings(lines: readonly Ending[]): Endings {
  const grants = new Map<GrantId, Extract<Ending, { of: 'grant' }>>();
  const documents = new Map<DocumentId, Extract<Ending, { of: 'document' }>>();
  const recipients = new Map<RecipientId, Extract<Ending, { of: 'recipient' }>>();
  const staff = new Map<StaffId, Extract<Ending, { of: 'staff' }>>();
  const ceilings = new Map<string, Extract<Ending, { of: 'ceiling' }>>();
  const rules = new Map<Way, Extract<Ending, { of: 'rule' }>>();
  for (const each of lines) {
    if (each.of === 'grant') grants.set(each.id, each);
    else if (each.of === 'document') documents.set(each.id, each);
    else if (each.of === 'recipient') recipients.set(each.id, each);
    else if (each.of === 'ceiling') ceilings.set(`${each.level} ${each.subject}`, each);
    else if (each.of === 'rule') rules.set(each.way, each);
    else if (each.of === 'staff') staff.set(each.id, each);
  }
  return { grants, documents, recipients, staff, ceilings, rules };
}

/** Every line that those stand for, as of one entry of the ledger. */
export function linesOf(
  { grants, documents, recipients, staff, ceilings, rules }: Endings,
  sequence: number,
): string {
  const all = [
    ...grants.values(),
    ...documents.values(),
    ...recipients.values(),
    ...staff.values(),
    ...ceilings.values(),
    ...rules.values(),
  ];
  return all.map((ending) => endingLine({ ...ending, sequence })).join('');
}

const least = (x: number | null, y: number | null): number | null =>
  x === null ? y : y === null ? x : Math.min(x, y);

function common<T>(a: readonly T[] | null, b: readonly T[] | null): readonly T[] | null {
  return a === null || b === null ? (a ?? b) : a.filter((each) => b.includes(each));
}

/**
 * The stricter of two ceilings in everything that either limits; of two lists of networks the last,
 * since one may lie inside the other.
 */
export function stricter(a: Limits, b: Limits): Limits {
  return {
    rights: common(a.rights, b.rights),
    days: least(a.days, b.days),
    prints: least(a.prints, b.prints),
    opens: least(a.opens, b.opens),
    countries: common(a.countries, b.countries),
    networks: b.networks ?? a.networks,
    passkey: b.passkey ?? a.passkey,
    offline: shorter(a.offline, b.offline),
  };
}

/** The shorter time on people's own machines; not at all is the shortest. */
function shorter(a: Limits['offline'], b: Limits['offline']): Limits['offline'] {
  if (a === 'never' || b === 'never') return 'never';
  return least(a, b);
}

/** The stricter of two sets of a sender's limits: only what both leave them. */
export function stricterSender(a: SenderLimits, b: SenderLimits): SenderLimits {
  return {
    domains: common(a.domains, b.domains),
    folders: common(a.folders, b.folders),
    rights: common(a.rights, b.rights),
    days: least(a.days, b.days),
  };
}

/**
 * Everything that either of two sets of conditions asks for: the smaller number, what both lists
 * have, else what was asked last.
 */
export function both(before: Conditions | null, last: Conditions | null): Conditions | null {
  if (before === null || last === null) return before ?? last;
  const merged = new Map<string, unknown>(Object.entries(before));
  for (const [name, value] of Object.entries(last) as [string, unknown][]) {
    const known = merged.get(name);
    if (typeof known === 'number' && typeof value === 'number')
      merged.set(name, Math.min(known, value));
    else if (name !== 'networks' && Array.isArray(known) && Array.isArray(value))
      merged.set(
        name,
        known.filter((each) => value.includes(each)),
      );
    else if (value !== null && value !== false) merged.set(name, value);
  }
  return Object.fromEntries(merged);
}

type Terms = {
  readonly until: number | null;
  readonly rights: readonly Right[];
  readonly prints: number | null;
};

/** The narrower of two: what both allow, until the earlier end. Neither ever gains by it. */
export function narrower(a: Terms, b: Terms): Terms {
  return {
    until: least(a.until, b.until),
    rights: a.rights.filter((right) => b.rights.includes(right)),
    prints: least(a.prints, b.prints),
  };
}

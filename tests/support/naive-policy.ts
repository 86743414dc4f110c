// What decides, written a second time without looking at the first: slowly, by the words of the
// rules, compiling nothing.
import type { DocumentPolicy, GrantFacts } from '@/core/policy/compile';
import type { Hours } from '@/core/policy/conditions';
import type { Asking, RefusalReason } from '@/core/policy/decide';
import { RIGHTS, type Right } from '@/core/policy/rights';

export type NaiveAnswer =
  | { readonly reason: RefusalReason }
  | {
      readonly charged: string;
      readonly until: number | null;
      readonly rights: readonly Right[];
      readonly printsLeft: number | null;
      readonly offline: number | null;
      readonly deterrent: boolean;
      readonly passOn: NaivePassOn | null;
    };
type NaivePassOn = {
  readonly people: number;
  readonly domains: readonly string[] | null;
  readonly steps: number;
};

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
const KNOWN = new Set([
  'opens',
  'within',
  'countries',
  'networks',
  'hours',
  'rememberedDevice',
  'devices',
  'passkey',
  'proveEvery',
  'offline',
  'captureDeterrent',
  'passOn',
]);

/** IPv4 only: as one number. */
function number(address: string): number {
  return address.split('.').reduce((sum, part) => sum * 256 + Number(part), 0);
}

function inNetwork(address: string, network: string): boolean {
  const [written = '', bits = '0'] = network.split('/');
  // Mapped into IPv6, the IPv4 part comes after 96 bits.
  const isMapped = written.startsWith('::ffff:');
  const base = written.replace('::ffff:', '');
  const size = 2 ** (32 - Number(bits) + (isMapped ? 96 : 0));
  return Math.floor(number(address) / size) === Math.floor(number(base) / size);
}

const formats = new Map<string, Intl.DateTimeFormat>();

/** Making a format takes far longer than using it. */
function formatIn(zone: string): Intl.DateTimeFormat {
  const known = formats.get(zone);
  if (known !== undefined) return known;
  const format = new Intl.DateTimeFormat('en-US', {
    timeZone: zone,
    weekday: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  });
  formats.set(zone, format);
  return format;
}

function clock(now: number, zone: string): { day: number; minute: number } {
  const text = formatIn(zone).format(now);
  const [, name = '', hour = '', minute = ''] = /^(\w+),? (\d+):(\d+)/.exec(text) ?? [];
  return {
    day: ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'].indexOf(name) + 1,
    minute: Number(hour) * 60 + Number(minute),
  };
}

/** The grant and everything it was passed on from, or null where that never ends or breaks off. */
function unbrokenChain(policy: DocumentPolicy, grant: GrantFacts): GrantFacts[] | null {
  const chain = [grant];
  for (let at = grant; at.parent != null;) {
    const parent = policy.grants.find(({ id }) => id === at.parent);
    if (parent === undefined || chain.includes(parent)) return null;
    chain.push(parent);
    at = parent;
  }
  return chain;
}

function chainOf(policy: DocumentPolicy, grant: GrantFacts): GrantFacts[] {
  return unbrokenChain(policy, grant) ?? [grant];
}

/** The most that each ceiling allows of something, where it says so. */
function limitsOf(policy: DocumentPolicy, name: 'days' | 'prints' | 'opens'): number[] {
  return policy.ceilings.flatMap(({ limits }) => limits[name] ?? []);
}

function ownRights(policy: DocumentPolicy, grant: GrantFacts): Right[] {
  return grant.terms.rights.filter((right) =>
    policy.ceilings.every(({ limits }) => limits.rights === null || limits.rights.includes(right)),
  );
}

/** Anyone who is above must have "pass on" through their own chain: the same question, one level up. */
function rightsOf(policy: DocumentPolicy, grant: GrantFacts): Right[] {
  const chain = unbrokenChain(policy, grant);
  if (chain?.slice(1).every((above) => rightsOf(policy, above).includes('pass-on')) !== true)
    return [];
  return ownRights(policy, grant).filter((right) =>
    chain.every((each) => ownRights(policy, each).includes(right)),
  );
}

function begins(policy: DocumentPolicy, grant: GrantFacts): number {
  return Math.max(...chainOf(policy, grant).map((each) => each.terms.from ?? -Infinity));
}

function endsAfterFirstOpen({ terms, used }: GrantFacts): number {
  const within = terms.conditions?.within ?? null;
  return within === null || used.firstOpenedAt === null ? Infinity : used.firstOpenedAt + within;
}

function ends(policy: DocumentPolicy, grant: GrantFacts): number {
  return Math.min(
    ...chainOf(policy, grant).flatMap((each) => [
      each.terms.until ?? Infinity,
      ...limitsOf(policy, 'days').map((days) => each.givenAt + days * DAY),
      endsAfterFirstOpen(each),
    ]),
  );
}

function prints(policy: DocumentPolicy, grant: GrantFacts): number {
  return Math.min(
    ...chainOf(policy, grant).map((each) => {
      const most = Math.min(each.terms.prints ?? Infinity, ...limitsOf(policy, 'prints'));
      return Math.max(0, most - each.used.prints);
    }),
  );
}

function hasUnlimitedPrints(policy: DocumentPolicy, grant: GrantFacts): boolean {
  return (
    chainOf(policy, grant).every(({ terms }) => terms.prints === null) &&
    limitsOf(policy, 'prints').length === 0
  );
}

/** To nobody where anybody in the chain may pass on to nobody, or the steps are used up on the way down. */
function passing(policy: DocumentPolicy, grant: GrantFacts): NaivePassOn | null {
  const all = chainOf(policy, grant).map(({ terms }, down) => ({
    bound: terms.conditions?.passOn ?? null,
    down,
  }));
  const each = all.flatMap(({ bound, down }) =>
    bound === null ? [] : [{ ...bound, steps: bound.steps - down }],
  );
  if (each.length < all.length || each.some(({ steps }) => steps < 1)) return null;
  const lists = each.flatMap(({ domains }) => (domains === null ? [] : [domains]));
  const common =
    lists.length === 0
      ? null
      : (lists[0] ?? []).filter((domain) => lists.every((list) => list.includes(domain)));
  return {
    people: Math.min(...each.map(({ people }) => people)),
    domains: common,
    steps: Math.min(...each.map(({ steps }) => steps)),
  };
}

type Device = Exclude<Asking['at']['device'], 'any'>;

function isPasskeyUsed(device: Device, now: number): boolean {
  return (device?.passkeyAt ?? -Infinity) > now - 12 * HOUR;
}

function isPasskeyAsked({ ceilings }: DocumentPolicy): boolean {
  return ceilings.some(({ limits }) => limits.passkey === true);
}

function isOverdue(device: Device, now: number, span: number | null | undefined): boolean {
  return span != null && (device === null || now - device.provenAt >= span);
}

function deviceMissing(
  policy: DocumentPolicy,
  { terms, used }: GrantFacts,
  device: Device,
  now: number,
): RefusalReason[] {
  const { proveEvery, passkey, rememberedDevice, devices } = terms.conditions ?? {};
  const missing: RefusalReason[] = [];
  if (isOverdue(device, now, proveEvery)) missing.push('prove-again');
  if (!isPasskeyUsed(device, now) && (passkey === true || isPasskeyAsked(policy)))
    missing.push('passkey-needed');
  if (rememberedDevice === true && device?.kept !== true) missing.push('device-not-accepted');
  if (devices != null && !isAmong(used.devices, device, devices)) missing.push('too-many-devices');
  return missing;
}

function isAmong(used: readonly string[], device: Device, most: number): boolean {
  return device !== null && (used.includes(device.id) || used.length < most);
}

function placeMissing(
  policy: DocumentPolicy,
  { terms }: GrantFacts,
  { network, country }: Asking['at'],
): RefusalReason[] {
  const listsOf = (name: 'networks' | 'countries'): (readonly string[])[] =>
    [terms.conditions?.[name], ...policy.ceilings.map(({ limits }) => limits[name])].filter(
      (list) => list != null,
    );
  const isIn = (list: readonly string[]): boolean =>
    network !== null && list.some((each) => inNetwork(network, each));
  const missing: RefusalReason[] = [];
  if (network !== 'any' && !listsOf('networks').every(isIn)) missing.push('network-not-allowed');
  if (
    country !== 'any' &&
    !listsOf('countries').every((list) => country !== null && list.includes(country))
  )
    missing.push('place-not-allowed');
  return missing;
}

function isInHours({ days, from, to }: Hours, now: number, zone: string): boolean {
  const { day, minute } = clock(now, zone);
  const yesterday = day === 1 ? 7 : day - 1;
  const has = (which: number): boolean => days.some((each) => each === which);
  return from < to
    ? has(day) && from <= minute && minute < to
    : (has(day) && minute >= from) || (has(yesterday) && minute < to);
}

/** What of a grant's own conditions is not met. */
function missingOf(policy: DocumentPolicy, grant: GrantFacts, at: Asking['at']): RefusalReason[] {
  const conditions = grant.terms.conditions ?? {};
  if (Object.keys(conditions).some((name) => !KNOWN.has(name))) return ['condition-unknown'];
  const missing: RefusalReason[] =
    at.device === 'any' ? [] : deviceMissing(policy, grant, at.device, at.now);
  missing.push(...placeMissing(policy, grant, at));
  if (conditions.hours != null && !isInHours(conditions.hours, at.now, at.zone))
    missing.push('hours-not-allowed');
  const opens = Math.min(conditions.opens ?? Infinity, ...limitsOf(policy, 'opens'));
  if (grant.used.opens >= opens) missing.push('opens-used-up');
  return missing;
}

function conditionsMissing(
  policy: DocumentPolicy,
  grant: GrantFacts,
  at: Asking['at'],
): RefusalReason[] {
  return chainOf(policy, grant).flatMap((each) => missingOf(policy, each, at));
}

function isReached({ addressee: { kind, id } }: GrantFacts, { recipient, link }: Asking): boolean {
  const reached: Record<typeof kind, boolean> = {
    person: id === recipient?.id,
    group: recipient?.groups?.includes(id) === true,
    domain: id === recipient?.domain,
    link: id === link,
  };
  return reached[kind];
}

/** Of all that is wrong with several grants, the first by this order is told. */
const ORDER: readonly RefusalReason[] = [
  'prove-again',
  'passkey-needed',
  'device-not-accepted',
  'too-many-devices',
  'network-not-allowed',
  'place-not-allowed',
  'hours-not-allowed',
  'opens-used-up',
  'not-yet',
  'read-not-allowed',
  'condition-unknown',
  'expired',
  'revoked',
];

function wrongWith(
  policy: DocumentPolicy,
  grant: GrantFacts,
  at: Asking['at'],
): RefusalReason | null {
  if (chainOf(policy, grant).some((each) => each.revoked)) return 'revoked';
  if (at.now >= ends(policy, grant)) return 'expired';
  if (at.now < begins(policy, grant)) return 'not-yet';
  if (!rightsOf(policy, grant).includes('read')) return 'read-not-allowed';
  return conditionsMissing(policy, grant, at)[0] ?? null;
}

/** Why nobody gets in, before any grant is looked at. */
function shutTo(
  policy: DocumentPolicy,
  { recipient }: Asking,
  reached: readonly GrantFacts[],
): RefusalReason | null {
  if (reached.length === 0) return 'not-addressed';
  if (recipient?.blocked === true) return 'recipient-blocked';
  if (policy.keyDestroyed) return 'key-destroyed';
  return policy.revoked ? 'document-revoked' : null;
}

function gives(policy: DocumentPolicy, grant: GrantFacts, right: Right): boolean {
  const own: readonly string[] = rightsOf(policy, grant);
  if (!own.includes(right)) return false;
  if (right === 'print') return prints(policy, grant) > 0;
  if (right === 'keep' || right === 'revise')
    return (
      own.includes('keep') &&
      own.includes('copy') &&
      own.includes('print') &&
      hasUnlimitedPrints(policy, grant)
    );
  return right !== 'pass-on' || passing(policy, grant) !== null;
}

/** What gives most first, then what lasts longest, then what was given first. */
function inOrderOfUse(policy: DocumentPolicy, live: readonly GrantFacts[]): GrantFacts[] {
  const worth = (grant: GrantFacts): number =>
    RIGHTS.filter((right) => gives(policy, grant, right)).length;
  const end = (grant: GrantFacts): number => ends(policy, grant);
  return [...live].sort(
    (a, b) =>
      worth(b) - worth(a) ||
      (end(a) === end(b) ? 0 : end(b) - end(a)) ||
      a.givenAt - b.givenAt ||
      (a.id < b.id ? -1 : 1),
  );
}

function finite(n: number): number | null {
  return Number.isFinite(n) ? n : null;
}

/** Chains and ceilings may each only shorten it; who is not allowed at all is nobody's length. */
function offlineOf({ ceilings }: DocumentPolicy, chain: readonly GrantFacts[]): number | null {
  const spans = chain.map(({ terms }) => terms.conditions?.offline ?? -1);
  for (const { limits } of ceilings)
    if (limits.offline !== null) spans.push(limits.offline === 'never' ? -1 : limits.offline);
  const shortest = Math.min(...spans);
  return shortest < 0 ? null : shortest;
}

function answerFrom(policy: DocumentPolicy, live: readonly GrantFacts[]): NaiveAnswer {
  const inOrder = inOrderOfUse(policy, live);
  const [charged] = inOrder;
  const printing = inOrder.find((grant) => gives(policy, grant, 'print'));
  const passer = inOrder.find((grant) => gives(policy, grant, 'pass-on'));
  const chain = charged === undefined ? [] : chainOf(policy, charged);
  return {
    charged: charged?.id ?? '',
    until: finite(Math.max(...live.map((grant) => ends(policy, grant)))),
    rights: RIGHTS.filter((right) => live.some((grant) => gives(policy, grant, right))),
    printsLeft: printing === undefined ? null : finite(prints(policy, printing)),
    offline: offlineOf(policy, chain),
    deterrent: chain.some(({ terms }) => terms.conditions?.captureDeterrent === true),
    passOn: passer === undefined ? null : passing(policy, passer),
  };
}

export function naiveDecision(policy: DocumentPolicy, asking: Asking): NaiveAnswer {
  if (asking.identity === 'not-proven') return { reason: 'identity-not-proven' };
  const reached = policy.grants.filter((grant) => isReached(grant, asking));
  const shut = shutTo(policy, asking, reached);
  if (shut !== null) return { reason: shut };
  const reasons = reached.map((grant) => wrongWith(policy, grant, asking.at));
  const live = reached.filter((_grant, i) => reasons[i] === null);
  if (live.length > 0) return answerFrom(policy, live);
  return { reason: ORDER.find((reason) => reasons.includes(reason)) ?? 'not-addressed' };
}

// What decides, written a second time without looking at the first: slowly, by the words of the
// rules, compiling nothing.
import type { DocumentPolicy, GrantFacts } from '@/core/policy/compile';
import type { Asking, RefusalReason } from '@/core/policy/decide';
import { RIGHTS, type Right } from '@/core/policy/rights';

export type NaiveAnswer =
  | { readonly reason: RefusalReason }
  | {
      readonly charged: string;
      readonly until: number | null;
      readonly rights: readonly Right[];
      readonly printsLeft: number | null;
      readonly offline: number;
      readonly deterrent: boolean;
      readonly passOn: NaivePassOn | null;
    };
type NaivePassOn = {
  readonly people: number;
  readonly domains: readonly string[] | null;
  readonly steps: number;
};

const DAY = 86_400_000;
const KNOWN = new Set([
  'opens',
  'within',
  'countries',
  'networks',
  'hours',
  'rememberedDevice',
  'devices',
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

function clock(now: number, zone: string): { day: number; minute: number } {
  const text = new Date(now).toLocaleString('en-US', {
    timeZone: zone,
    weekday: 'short',
    hour: '2-digit',
    minute: '2-digit',
    hourCycle: 'h23',
  });
  const [, name = '', hour = '', minute = ''] = /^(\w+),? (\d+):(\d+)/.exec(text) ?? [];
  return {
    day: ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'].indexOf(name) + 1,
    minute: Number(hour) * 60 + Number(minute),
  };
}

export function naiveDecision(policy: DocumentPolicy, asking: Asking): NaiveAnswer {
  const { at, recipient } = asking;
  if (asking.identity === 'not-proven') return { reason: 'identity-not-proven' };

  /** The grant and everything it was passed on from, or null where that never ends or breaks off. */
  const chainOf = (grant: GrantFacts): GrantFacts[] | null => {
    const chain = [grant];
    for (let at = grant; at.parent != null;) {
      const parent = policy.grants.find(({ id }) => id === at.parent);
      if (parent === undefined || chain.includes(parent)) return null;
      chain.push(parent);
      at = parent;
    }
    return chain;
  };
  const ownRights = (grant: GrantFacts): Right[] =>
    grant.terms.rights.filter((right) =>
      policy.ceilings.every(
        ({ limits }) => limits.rights === null || limits.rights.includes(right),
      ),
    );
  const rightsOf = (grant: GrantFacts): Right[] => {
    const chain = chainOf(grant);
    if (chain === null || chain.slice(1).some((above) => !rightsWithin(above).includes('pass-on')))
      return [];
    return ownRights(grant).filter((right) =>
      chain.every((each) => ownRights(each).includes(right)),
    );
  };
  // Above: a grant must itself have "pass on" through its own chain; the same question, one level up.
  const rightsWithin = (grant: GrantFacts): Right[] => rightsOf(grant);
  const ends = (grant: GrantFacts): number =>
    Math.min(
      ...(chainOf(grant) ?? [grant]).flatMap((each) => [
        each.terms.until ?? Infinity,
        ...policy.ceilings.map(({ limits }) =>
          limits.days === null ? Infinity : each.givenAt + limits.days * DAY,
        ),
        each.terms.conditions?.within == null || each.used.firstOpenedAt === null
          ? Infinity
          : each.used.firstOpenedAt + each.terms.conditions.within,
      ]),
    );
  const prints = (grant: GrantFacts): number =>
    Math.min(
      ...(chainOf(grant) ?? [grant]).map((each) => {
        const most = Math.min(
          each.terms.prints ?? Infinity,
          ...policy.ceilings.map(({ limits }) => limits.prints ?? Infinity),
        );
        return Math.max(0, most - each.used.prints);
      }),
    );
  const unlimitedPrints = (grant: GrantFacts): boolean =>
    (chainOf(grant) ?? [grant]).every(({ terms }) => terms.prints === null) &&
    policy.ceilings.every(({ limits }) => limits.prints === null);
  /** To nobody where anybody in the chain may pass on to nobody, or the steps are used up on the way down. */
  const passing = (grant: GrantFacts): NaivePassOn | null => {
    const all = (chainOf(grant) ?? [grant]).map(({ terms }, down) => ({
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
  };

  const conditionsMet = (grant: GrantFacts): RefusalReason[] =>
    (chainOf(grant) ?? [grant]).flatMap((each): RefusalReason[] => {
      const conditions = each.terms.conditions ?? {};
      if (Object.keys(conditions).some((name) => !KNOWN.has(name))) return ['condition-unknown'];
      const missing: RefusalReason[] = [];
      const device = at.device === 'any' ? undefined : at.device;
      if (device !== undefined) {
        if (
          conditions.proveEvery != null &&
          (device === null || at.now - device.provenAt >= conditions.proveEvery)
        )
          missing.push('prove-again');
        if (conditions.rememberedDevice === true && device?.kept !== true)
          missing.push('device-not-accepted');
        if (
          conditions.devices != null &&
          (device === null ||
            (!each.used.devices.includes(device.id) &&
              each.used.devices.length >= conditions.devices))
        )
          missing.push('too-many-devices');
      }
      const lists = [
        conditions.networks,
        ...policy.ceilings.map(({ limits }) => limits.networks),
      ].filter((list) => list != null);
      if (
        at.network !== 'any' &&
        lists.some(
          (list) => !list.some((network) => at.network !== null && inNetwork(at.network, network)),
        )
      )
        missing.push('network-not-allowed');
      const countries = [
        conditions.countries,
        ...policy.ceilings.map(({ limits }) => limits.countries),
      ].filter((list) => list != null);
      if (
        at.country !== 'any' &&
        countries.some((list) => at.country === null || !list.includes(at.country))
      )
        missing.push('place-not-allowed');
      if (conditions.hours != null) {
        const { days, from, to } = conditions.hours;
        const { day, minute } = clock(at.now, at.zone);
        const yesterday = day === 1 ? 7 : day - 1;
        const has = (which: number): boolean => days.some((each) => each === which);
        const inside =
          from < to
            ? has(day) && from <= minute && minute < to
            : (has(day) && minute >= from) || (has(yesterday) && minute < to);
        if (!inside) missing.push('hours-not-allowed');
      }
      const opens = Math.min(
        conditions.opens ?? Infinity,
        ...policy.ceilings.map(({ limits }) => limits.opens ?? Infinity),
      );
      if (each.used.opens >= opens) missing.push('opens-used-up');
      return missing;
    });
  const reached = policy.grants.filter(
    ({ addressee: { kind, id } }) =>
      (kind === 'person' && id === recipient?.id) ||
      (kind === 'group' && recipient?.groups?.includes(id) === true) ||
      (kind === 'domain' && id === recipient?.domain) ||
      (kind === 'link' && id === asking.link),
  );
  if (reached.length === 0) return { reason: 'not-addressed' };
  if (recipient?.blocked === true) return { reason: 'recipient-blocked' };
  if (policy.keyDestroyed) return { reason: 'key-destroyed' };
  if (policy.revoked) return { reason: 'document-revoked' };

  /** Everything that is wrong with a grant now, of which the first by this order counts. */
  const order: RefusalReason[] = [
    'prove-again',
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
  const begins = (grant: GrantFacts): number =>
    Math.max(...(chainOf(grant) ?? [grant]).map((each) => each.terms.from ?? -Infinity));
  const wrong = (grant: GrantFacts): RefusalReason | null => {
    if ((chainOf(grant) ?? [grant]).some((each) => each.revoked)) return 'revoked';
    if (at.now >= ends(grant)) return 'expired';
    if (at.now < begins(grant)) return 'not-yet';
    if (!rightsOf(grant).includes('read')) return 'read-not-allowed';
    return conditionsMet(grant)[0] ?? null;
  };
  const live = reached.filter((grant) => wrong(grant) === null);
  if (live.length === 0) {
    const reasons = reached.map(wrong);
    return { reason: order.find((reason) => reasons.includes(reason)) ?? 'not-addressed' };
  }
  const usable: Record<string, (grant: GrantFacts) => boolean> = {
    print: (grant) => prints(grant) > 0,
    keep: (grant) =>
      ['copy', 'print'].every((right) => rightsOf(grant).some((each) => each === right)) &&
      unlimitedPrints(grant),
    'pass-on': (grant) => passing(grant) !== null,
  };
  const gives = (grant: GrantFacts, right: Right): boolean =>
    rightsOf(grant).includes(right) && (usable[right]?.(grant) ?? true);
  const worth = (grant: GrantFacts): number =>
    rightsOf(grant).filter((right) => gives(grant, right)).length;
  const inOrder = [...live].sort(
    (a, b) =>
      worth(b) - worth(a) ||
      (ends(a) === ends(b) ? 0 : ends(b) - ends(a)) ||
      a.givenAt - b.givenAt ||
      (a.id < b.id ? -1 : 1),
  );
  const [charged] = inOrder;
  const rights = RIGHTS.filter((right) => live.some((grant) => gives(grant, right)));
  const printing = inOrder.find((grant) => gives(grant, 'print'));
  const passer = inOrder.find((grant) => gives(grant, 'pass-on'));
  const last = Math.max(...live.map(ends));
  const chain = charged === undefined ? [] : (chainOf(charged) ?? [charged]);
  return {
    charged: charged?.id ?? '',
    until: Number.isFinite(last) ? last : null,
    rights,
    printsLeft:
      printing === undefined || !Number.isFinite(prints(printing)) ? null : prints(printing),
    offline: Math.min(...chain.map(({ terms }) => terms.conditions?.offline ?? 0)),
    deterrent: chain.some(({ terms }) => terms.conditions?.captureDeterrent === true),
    passOn: passer === undefined ? null : passing(passer),
  };
}

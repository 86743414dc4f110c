import type { Moment } from '@/core/base/time';
import { DELIVERY_FORMS, type DeliveryForm } from '@/core/policy/delivery';

/** Ways of handing something out that an organisation may not want, or not without a second person. */
export const WAYS = [
  'link',
  'file',
  'unprotected',
  'domain',
  'open-link',
  'lower-marking',
] as const;
export type Way = (typeof WAYS)[number];

/** Anybody who sends may; only once a second person agrees; nobody. */
export const LEAVES = ['allowed', 'agreed', 'forbidden'] as const;
export type Leave = (typeof LEAVES)[number];

export type Rule = {
  readonly way: Way;
  readonly leave: Leave;
  /** Why, for anyone who meets it. */ readonly reason: string;
  readonly setBy: string | null;
  readonly setAt: Moment | null;
};

/** How it is until somebody decides otherwise: what cannot be taken back is off. */
const AT_FIRST: Readonly<Record<Way, Leave>> = {
  link: 'allowed',
  file: 'allowed',
  unprotected: 'forbidden',
  domain: 'allowed',
  'open-link': 'forbidden',
  'lower-marking': 'allowed',
};

/** Every way with what was decided about it, or how it is at first. */
export function wholeRules(decided: readonly Rule[]): Rule[] {
  return WAYS.map(
    (way) =>
      decided.find((rule) => rule.way === way) ?? {
        way,
        leave: AT_FIRST[way],
        reason: '',
        setBy: null,
        setAt: null,
      },
  );
}

/** What a dispatch asks of the rules. */
export type DispatchWays = {
  readonly form?: DeliveryForm | undefined;
  readonly domains?: readonly unknown[] | undefined;
  /** What an open link gives; absent: there is none. */
  readonly openLink?: object | null | undefined;
};

/** The ways that each form takes. */
const WAYS_OF_FORM: Readonly<Record<DeliveryForm, readonly Way[]>> = {
  link: ['link'],
  file: ['file'],
  both: ['link', 'file'],
  unprotected: ['unprotected'],
};

/** The forms that take a way; none for a way that is not about what is handed over. */
export function formsOf(way: Way): DeliveryForm[] {
  return DELIVERY_FORMS.filter((form) => WAYS_OF_FORM[form].includes(way));
}

export function waysOf({ form = 'link', domains = [], openLink = null }: DispatchWays): Way[] {
  const ways = [...WAYS_OF_FORM[form]];
  if (domains.length > 0) ways.push('domain');
  if (openLink !== null) ways.push('open-link');
  return ways;
}

/** Of these ways the rules that forbid one, and those that want a second person. */
export function judgeWays(
  rules: readonly Rule[],
  ways: readonly Way[],
): { readonly forbidden: readonly Rule[]; readonly agreed: readonly Rule[] } {
  const asked = wholeRules(rules).filter(({ way }) => ways.includes(way));
  return {
    forbidden: asked.filter(({ leave }) => leave === 'forbidden'),
    agreed: asked.filter(({ leave }) => leave === 'agreed'),
  };
}

/** Whether a marking is less strict than another: they stand in order, the strictest last, and none is the least. */
export function isLowered(
  order: readonly string[],
  from: string | null,
  to: string | null,
): boolean {
  const rank = (marking: string | null): number => (marking === null ? -1 : order.indexOf(marking));
  return rank(to) < rank(from);
}

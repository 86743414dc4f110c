import type { Moment } from '@/core/base/time';
import { CAUTIOUS_TERMS, type SavedTerms } from '@/core/policy/saved-terms';
import type { Subject } from '@/core/policy/levels';
import { standingTerms, type Right } from '@/core/policy/rights';
import { joinWatermarks, type Watermark } from '@/core/watermark/layers';

/** What a dispatch begins with below a level, where nobody chooses otherwise. `null`: left to the level outside. */
export type Defaults = {
  readonly rights: readonly Right[] | null;
  /** Days from the dispatch on. */
  readonly days: number | 'no-end' | null;
  readonly prints: number | null;
};
export const NO_DEFAULTS: Defaults = { rights: null, days: null, prints: null };

/** What a level sets beside its ceiling. */
export type LevelDefaults = Subject & {
  readonly defaults: Defaults;
  /** What stands on every page below it, beside what a dispatch puts there; empty: nothing. */
  readonly watermark: Watermark;
  readonly setBy: string;
  readonly setAt: Moment;
};

type Defaulted = 'rights' | 'days' | 'prints';

/** The terms that a dispatch begins with, and who set each value; `null`: nobody, so that it is the cautious one. */
export type Begun<T extends LevelDefaults = LevelDefaults> = {
  readonly terms: SavedTerms;
  readonly origins: Readonly<Record<Defaulted, T | null>>;
};

/** Whether a level sets anything. */
export function setsAnything({
  defaults,
  watermark,
}: Pick<LevelDefaults, 'defaults' | 'watermark'>): boolean {
  return watermark.length > 0 || Object.values(defaults).some((value) => value !== null);
}

function nearest<T extends LevelDefaults>(
  outermostFirst: readonly T[],
  which: Defaulted,
): T | null {
  return outermostFirst.findLast(({ defaults }) => defaults[which] !== null) ?? null;
}

/**
 * Rights that can stand together: values of different levels may contradict each other, and then
 * the one that is limited yields.
 */
function standing(terms: SavedTerms): SavedTerms {
  const { rights } = standingTerms({ ...terms, from: null, until: null });
  return { ...terms, rights };
}

/**
 * What a dispatch of one document begins with: of each value the nearest level's, and where nobody
 * set one, the cautious one.
 */
export function resolveDefaults<T extends LevelDefaults>(outermostFirst: readonly T[]): Begun<T> {
  const origins = {
    rights: nearest(outermostFirst, 'rights'),
    days: nearest(outermostFirst, 'days'),
    prints: nearest(outermostFirst, 'prints'),
  };
  const rights = origins.rights?.defaults.rights ?? CAUTIOUS_TERMS.rights;
  const days = origins.days?.defaults.days ?? CAUTIOUS_TERMS.days;
  const prints = rights.includes('print')
    ? (origins.prints?.defaults.prints ?? CAUTIOUS_TERMS.prints)
    : null;
  return {
    terms: standing({
      rights,
      days: days === 'no-end' ? null : days,
      prints,
      watermark: CAUTIOUS_TERMS.watermark,
    }),
    origins,
  };
}

function least(a: number | null, b: number | null): number | null {
  return a === null || b === null ? (a ?? b) : Math.min(a, b);
}

/** What a dispatch of several documents begins with: what their own beginnings have in common. */
export function commonDefaults<T extends LevelDefaults>(each: readonly Begun<T>[]): Begun<T> {
  const [first, ...others] = each;
  if (first === undefined) return resolveDefaults<T>([]);
  return others.reduce((a, b): Begun<T> => {
    const rights = a.terms.rights.filter((right) => b.terms.rights.includes(right));
    const terms = {
      ...a.terms,
      rights,
      days: least(a.terms.days, b.terms.days),
      prints: rights.includes('print') ? least(a.terms.prints, b.terms.prints) : null,
    };
    return {
      terms: standing(terms),
      origins: {
        rights: rights.length < a.terms.rights.length ? b.origins.rights : a.origins.rights,
        days: terms.days === a.terms.days ? a.origins.days : b.origins.days,
        prints: terms.prints === a.terms.prints ? a.origins.prints : b.origins.prints,
      },
    };
  }, first);
}

/**
 * What stands on every page: the dispatch's own watermark and everything that a level around the
 * document asks for. Below can only add.
 */
export function watermarkUnder(
  own: Watermark,
  outermostFirst: readonly Pick<LevelDefaults, 'watermark'>[],
): Watermark {
  return joinWatermarks([...outermostFirst.map(({ watermark }) => watermark), own]);
}

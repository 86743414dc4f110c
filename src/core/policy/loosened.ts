import type { Ceiling, Limits } from '@/core/policy/ceiling';
import type { LevelDefaults } from '@/core/policy/defaults';
import { holdsLayers, joinWatermarks } from '@/core/watermark/layers';
import { reaching, type Parents, type Standing, type Subject } from '@/core/policy/levels';

/** What levels impose on a document: ceilings, and watermarks that are required. */
export type Imposed = {
  readonly ceilings: readonly Ceiling[];
  readonly marks: readonly LevelDefaults[];
};

/** What there is to impose, and which folder lies in which. */
export type Levels = Imposed & { readonly parents: Parents };

/** What is imposed on a document that stands here. */
export function imposedOn(standing: Standing, { ceilings, marks, parents }: Levels): Imposed {
  return {
    ceilings: reaching(standing, ceilings, parents),
    marks: reaching(standing, marks, parents).filter(({ watermark }) => watermark.length > 0),
  };
}

type Listed = 'rights' | 'countries' | 'networks';
type Counted = 'days' | 'prints' | 'opens';

/** What several lists have in common; null: none of them says anything. */
function common(lists: readonly (readonly string[] | null)[]): ReadonlySet<string> | null {
  const said = lists.filter((list) => list !== null);
  const [first, ...others] = said;
  return first === undefined
    ? null
    : new Set(first.filter((each) => others.every((list) => list.includes(each))));
}

function isListKept(limits: readonly string[], which: Listed, after: readonly Ceiling[]): boolean {
  const left = common(after.map((ceiling) => ceiling.limits[which]));
  return left !== null && [...left].every((each) => limits.includes(each));
}

/** Networks of several levels do not reduce to one list, so each has to be found again, or one within it. */
function areNetworksKept(networks: Limits['networks'], after: readonly Ceiling[]): boolean {
  if (networks === null) return true;
  return after.some(
    ({ limits }) => limits.networks?.every((network) => networks.includes(network)) === true,
  );
}

function isCountKept(most: number, which: Counted, after: readonly Ceiling[]): boolean {
  return after.some(({ limits }) => {
    const left = limits[which];
    return left !== null && left <= most;
  });
}

/** Shorter is stricter, and not at all is the strictest. */
function isOfflineKept(most: Limits['offline'], after: readonly Ceiling[]): boolean {
  if (most === null) return true;
  return after.some(({ limits: { offline } }) => {
    if (offline === null) return false;
    return offline === 'never' || (most !== 'never' && offline <= most);
  });
}

function isKept(limits: Limits, after: readonly Ceiling[]): boolean {
  return (Object.keys(limits) as (keyof Limits)[]).every((which) => {
    switch (which) {
      case 'rights':
      case 'countries': {
        const list = limits[which];
        return list === null || isListKept(list, which, after);
      }
      case 'networks':
        return areNetworksKept(limits.networks, after);
      case 'passkey':
        return limits.passkey === null || after.some((ceiling) => ceiling.limits.passkey === true);
      case 'offline':
        return isOfflineKept(limits.offline, after);
      case 'days':
      case 'prints':
      case 'opens': {
        const most = limits[which];
        return most === null || isCountKept(most, which, after);
      }
    }
  });
}

/**
 * The first of the rules imposed before that nothing imposed afterwards keeps up; `null` where all
 * are. Whatever else changes, a document that stays under all of them is bound as strictly as it
 * was.
 */
export function loosened(before: Imposed, after: Imposed): Subject | null {
  const ceiling = before.ceilings.find(({ limits }) => !isKept(limits, after.ceilings));
  if (ceiling !== undefined) return ceiling;
  return (
    before.marks.find(
      ({ watermark }) =>
        !holdsLayers(joinWatermarks(after.marks.map((each) => each.watermark)), watermark),
    ) ?? null
  );
}

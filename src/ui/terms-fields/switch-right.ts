import { rightNames } from '@/core/policy/right-names';
import { brokenDependencies, standingTerms, type Right, type Terms } from '@/core/policy/rights';
import { needsWords } from '@/ui/words/dependency-words';

export type TermsDraft = Terms;

/**
 * Switches a right and everything that cannot stand without it; says what else was switched.
 * Keep needs copy and unlimited print, so it is switched off with either.
 */
export function switchRight(
  terms: TermsDraft,
  right: Right,
  on: boolean,
): { readonly terms: TermsDraft; readonly said: string | null } {
  const rights = on ? [...terms.rights, right] : terms.rights.filter((each) => each !== right);
  let next: TermsDraft = {
    ...terms,
    rights,
    prints: rights.includes('print') ? terms.prints : null,
  };
  const said: string[] = [];
  // One that goes may take another with it.
  for (let [broken] = brokenDependencies(next); broken !== undefined;) {
    const { right: off, needs } = broken;
    next = { ...next, rights: next.rights.filter((each) => each !== off) };
    said.push(`${rightNames[off]} ${needsWords[needs]}, so it is off.`);
    [broken] = brokenDependencies(next);
  }
  return { terms: next, said: said.length === 0 ? null : said.join(' ') };
}

/** Sets how many prints each may make, from a field's text; keep goes where it cannot stand any more. */
export function limitPrints(
  terms: TermsDraft,
  text: string,
): { readonly terms: TermsDraft; readonly said: string | null } {
  const prints = text === '' ? null : Math.max(1, Math.min(999, Math.floor(Number(text)) || 1));
  const keepGoes = prints !== null && terms.rights.includes('keep');
  return {
    terms: standingTerms({ ...terms, prints }),
    said: keepGoes ? `${rightNames.keep} ${needsWords['unlimited-print']}, so it is off.` : null,
  };
}

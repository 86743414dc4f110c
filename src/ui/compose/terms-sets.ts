import { bareDomain } from '@/core/policy/address';
import { counted } from '@/core/base/counted';
import { termsText, type Terms } from '@/core/policy/rights';
import type { Wider } from '@/ui/compose/compose-check';
import type { RecipientDraft } from '@/ui/recipients/use-recipients';

/** Everybody who gets the same terms. */
export type TermsSet = {
  readonly terms: Terms;
  /** Who they are, in words. */ readonly whom: readonly string[];
};

/** Named one by one up to so many. */
const MOST_NAMED = 3;

function peopleText(addresses: readonly string[], others: boolean): string {
  return others && addresses.length <= MOST_NAMED
    ? addresses.join(', ')
    : counted(addresses.length, 'person', 'people');
}

/**
 * Who gets which terms: first those that are everybody's, where anybody has them, then each that
 * differ. People whose own terms come to the same as everybody's are with everybody.
 */
export function termsSets(
  people: readonly RecipientDraft[],
  { groups, domains, openLink }: Pick<Wider, 'groups' | 'domains' | 'openLink'>,
  common: Terms,
): TermsSet[] {
  const commonText = termsText(common);
  const apart = new Map<string, { readonly terms: Terms; readonly addresses: string[] }>();
  const together: string[] = [];
  for (const { address, terms } of people) {
    const text = terms === null ? commonText : termsText(terms);
    if (terms === null || text === commonText) {
      together.push(address);
      continue;
    }
    const there = apart.get(text);
    if (there === undefined) apart.set(text, { terms, addresses: [address] });
    else there.addresses.push(address);
  }
  const whom = [
    ...(together.length === 0 ? [] : [peopleText(together, false)]),
    ...groups.map((group) => `${group.name} (${String(group.people)} now)`),
    ...domains.map(({ domain }) => `everyone at ${bareDomain(domain)}`),
    ...(openLink ? ['anyone with the link'] : []),
  ];
  return [
    ...(whom.length === 0 ? [] : [{ terms: common, whom }]),
    ...[...apart.values()].map(({ terms, addresses }) => ({
      terms,
      whom: [peopleText(addresses, true)],
    })),
  ];
}

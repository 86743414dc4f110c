import type { DefaultsRow } from '@/contracts/defaults';
import type { Begun } from '@/core/policy/defaults';
import { levelOf } from '@/ui/words/limit-words';
import { rightsLine } from '@/core/policy/rights-line';

function by(origin: DefaultsRow | null): string {
  return origin === null
    ? 'not set anywhere'
    : `set by ${levelOf(origin)}${origin.setBy === '' ? '' : `, ${origin.setBy}`}`;
}

/** What a dispatch begins with, each value with where it comes from. */
export function originWords({ terms, origins }: Begun<DefaultsRow>): string[] {
  return [
    `${rightsLine(terms.rights, terms.prints)}: ${by(origins.rights)}`,
    `${terms.days === null ? 'no end' : `${String(terms.days)} ${terms.days === 1 ? 'day' : 'days'}`}: ` +
      by(origins.days),
  ];
}

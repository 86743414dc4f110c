import { wayText } from '@/core/insight/after-words';
import { addresseeName } from '@/core/policy/addressee-name';
import { counted } from '@/core/base/counted';
import type { RevokeEffect, StillReads, WayIn } from '@/contracts/access';

const MOST_NAMES = 40;

export function namesText(names: readonly string[]): string {
  const more = names.length - MOST_NAMES;
  return `${names.slice(0, MOST_NAMES).join(', ')}${more > 0 ? ` and ${String(more)} more` : ''}`;
}

export const forMany = ({ by }: WayIn): boolean => by === 'domain';
export const ownWays = (way: WayIn): boolean => !forMany(way);

/** Whom else it closes to, besides people by name. */
export function closesText(closes: RevokeEffect['closes']): string[] {
  return closes.map(({ kind, name }) => addresseeName({ kind, name, address: name }));
}

function copiedWords(sentTo: number, copiedBy: number): string {
  if (copiedBy === 0) return 'who may have copied it';
  return copiedBy === sentTo ? 'copied' : `copied by ${String(copiedBy)} of them`;
}

/** What no revocation reaches, as the ledger has it. */
export function beyondReachText({
  printsMade,
  keptBy,
  textSentTo,
  copiedBy,
}: Pick<RevokeEffect, 'printsMade' | 'keptBy' | 'textSentTo' | 'copiedBy'>): string {
  const parts = [
    printsMade === 0 ? null : `${counted(printsMade, 'print that was', 'prints that were')} made`,
    keptBy === 0 ? null : `a copy kept by ${counted(keptBy, 'person', 'people')}`,
    textSentTo === 0
      ? null
      : `text of pages sent to ${counted(textSentTo, 'person', 'people')}, ` +
        copiedWords(textSentTo, copiedBy),
  ].filter((part) => part !== null);
  return parts.length === 0
    ? 'According to the ledger, nothing was printed, kept or copied.'
    : `Not undone by revoking, according to the ledger: ${parts.join('; ')}.`;
}

/** Who still reads although it is done; empty: nobody of them. */
export function stillReadsText(still: readonly StillReads[]): string {
  const names = [...new Set(still.map(({ name }) => name))];
  if (names.length === 0) return '';
  const [first] = still;
  const how =
    names.length === 1 && first !== undefined
      ? `: ${[...new Set(still.flatMap(({ ways }) => ways.map(wayText)))].join('; ')}`
      : '';
  return ` ${namesText(names)} still ${names.length === 1 ? 'reads' : 'read'} by another way${how}.`;
}

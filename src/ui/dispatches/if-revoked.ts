import type { RevokeEffect } from '@/contracts/access';
import { counted } from '@/core/base/counted';
import { closesText } from '@/ui/grants/revoke-words';

/** What revoking would do, in one line. */
export function ifRevokedText({
  shutOut,
  readsOn,
  closes,
  stillReads,
  openLinks,
  printsMade,
  keptBy,
  textSentTo,
}: RevokeEffect): string {
  const out = [
    ...closesText(closes),
    ...(shutOut.length === 0 ? [] : [counted(shutOut.length, 'person', 'people')]),
  ];
  const still = new Set(stillReads.map(({ recipient }) => recipient)).size;
  const parts = [
    out.length > 0 && `${out.join(', ')} shut out at once`,
    readsOn.length > 0 &&
      `${counted(readsOn.length, 'person reads on', 'people read on')} for a while on their own machine`,
    still > 0 && `${counted(still, 'person still reads', 'people still read')} by another way`,
    openLinks.length > 0 && 'open to anyone with another link',
    printsMade + keptBy + textSentTo > 0 && 'prints or copies stay where they are',
  ].filter((part) => part !== false);
  return parts.length === 0 ? 'Nobody can open it now.' : `If revoked: ${parts.join(', ')}.`;
}

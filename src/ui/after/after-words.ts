import type { AfterRow, Copies } from '@/contracts/after-revocation';
import { counted } from '@/core/base/counted';
import { bareDomain } from '@/core/policy/address';

/** What an addressee is called. */
export function addresseeText({
  kind,
  name,
  address,
}: Pick<AfterRow, 'kind' | 'name' | 'address'>): string {
  if (kind === 'domain') return `everyone at ${bareDomain(address)}`;
  if (kind === 'group') return `the group ${name}`;
  if (kind === 'link') return 'whoever has the link';
  return name === '' ? address : name;
}

/** What stays beyond reach; the moment of a kept copy is told beside it. */
export function copiesText({ prints, textSent, textCopied, inTheClear }: Copies): string[] {
  return [
    ...(inTheClear ? ['has the document in the clear'] : []),
    ...(prints === 0 ? [] : [`${counted(prints, 'print')} made`]),
    ...(textCopied ? ['text copied'] : textSent ? ['text of pages sent'] : []),
  ];
}

/** How far it is closed, in one sentence. */
export function closedText(rows: readonly AfterRow[]): string {
  const open = new Set(rows.filter(({ ways }) => ways.length > 0).map(({ recipient }) => recipient))
    .size;
  const offline = new Set(
    rows
      .filter(({ ways, offlineUntil }) => ways.length === 0 && offlineUntil !== null)
      .map(({ recipient }) => recipient),
  ).size;
  if (open + offline > 0)
    return `Not closed yet: ${[...(open === 0 ? [] : [`${counted(open, 'person', 'people')} can still read by another way`]), ...(offline === 0 ? [] : [`${counted(offline, 'person', 'people')} may go on reading what was open`])].join(', ')}.`;
  const tried = new Set(rows.filter(({ tries }) => tries > 0).map(({ recipient }) => recipient))
    .size;
  const copies = new Set(
    rows
      .filter(
        ({ copies: { prints, keptAt, textSent, textCopied, inTheClear } }) =>
          prints > 0 || keptAt !== null || textSent || textCopied || inTheClear,
      )
      .map(({ recipient }) => recipient),
  ).size;
  return `Closed: nobody named here can open it. ${tried === 0 ? 'Nobody has tried since' : `${counted(tried, 'has', 'have')} tried since`}; ${copies === 0 ? 'by the ledger, nothing was taken' : `${counted(copies, 'person has', 'people have')} copies or prints that stay where they are`}.`;
}

import { bareDomain } from '@/core/policy/address';
import type { AddresseeKind } from '@/core/policy/addressee';

/** What somebody who was addressed is called, or what stands for many. */
export function addresseeName({
  kind,
  name,
  address,
}: {
  readonly kind: AddresseeKind;
  readonly name: string;
  readonly address: string;
}): string {
  if (kind === 'domain') return `everyone at ${bareDomain(address)}`;
  if (kind === 'group') return `the group ${name}`;
  if (kind === 'link') return 'anyone with the link';
  return name === '' ? address : name;
}

import { bareDomain } from '@/core/policy/address';
import { standsForMany, type AddresseeKind } from '@/core/policy/addressee';

/** The same where it stands by itself, as in a list: with a capital letter. */
export function addresseeTitle(addressee: Parameters<typeof addresseeName>[0]): string {
  const name = addresseeName(addressee);
  return standsForMany(addressee.kind) ? name.charAt(0).toUpperCase() + name.slice(1) : name;
}

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

/** Somebody who came by an open link and is not known otherwise. */
export const VISITOR = 'Somebody with the link';

import { bareDomain } from '@/core/policy/address';
import type { GrantRow } from '@/contracts/dispatch';
import type { Many } from '@/core/policy/addressee';

type Named = Pick<
  GrantRow,
  'recipientId' | 'kind' | 'name' | 'address' | 'organisation' | 'passedOnBy'
>;

/** What stands below the name of somebody, or of what stands for many. */
export const whoWords: Record<Many, string> = {
  group: 'a group that follows membership: people who join get access, people who leave lose it',
  domain: 'anyone who proves an email address there; how many is unknown',
  link: 'anyone with the link; who and how many is unknown',
};

export function whoLine({ kind, organisation, address, passedOnBy }: Named): string {
  if (kind === 'visitor') return `not known; mark ${address.slice(address.indexOf(':') + 1)}`;
  if (kind !== 'person') return whoWords[kind];
  const where = organisation === '' ? address : organisation;
  return passedOnBy === null ? where : `${where}, passed on by ${passedOnBy}`;
}

/** `3 people`, `3 people and an unknown number more`: those who stand by themselves, and whether more can come in. */
export function audience(people: number, unknown: boolean): string {
  if (unknown)
    return people === 0
      ? 'people unknown'
      : `${String(people)} ${people === 1 ? 'person' : 'people'} so far, the rest unknown`;
  return `${String(people)} ${people === 1 ? 'person' : 'people'}`;
}

/** The same, of grants. */
export function audienceOf(grants: readonly Named[]): string {
  return audience(
    new Set(
      grants
        .filter(({ kind }) => kind === 'person' || kind === 'visitor')
        .map(({ recipientId }) => recipientId),
    ).size,
    grants.some(({ kind }) => kind === 'domain' || kind === 'link'),
  );
}

/** What a link is worth to anyone who holds it. */
export function linkWords({ kind, name, address }: Named): string {
  switch (kind) {
    case 'person':
      return `For ${address} only. It does not work for anybody else.`;
    case 'group':
      return `For members of “${name}”, once they prove their email address. It does not work for anybody else.`;
    case 'domain':
      return `For any email address at ${bareDomain(address)}, once it is proven. It does not work for anybody else.`;
    case 'visitor':
      return 'For one visit by the open link.';
    case 'link':
      return 'Opens for anyone with the link, without proof.';
  }
}

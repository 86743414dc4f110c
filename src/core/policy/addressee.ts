import { isId, type DispatchId, type GroupId } from '@/core/base/ids';

/**
 * Who a grant can be for: a person, a live group, every address at a domain, anyone who holds an open
 * link, or somebody who came by one and is not known.
 */
export type AddresseeKind = 'person' | 'group' | 'domain' | 'link' | 'visitor';

/**
 * Under what a group, the holders of a link or one of them are kept among the addresses: no address
 * is spelled so. A domain is `@yard.example`.
 */
const GROUP = 'group:';
export const addressOfGroup = (id: GroupId): string => `${GROUP}${id}`;
export const addressOfVisitor = (mark: string): string => `visitor:${mark}`;
export const addressOfLink = (dispatch: DispatchId): string => `link:${dispatch}`;

export type Many = 'group' | 'domain' | 'link';

/** Whether it stands for many, each of whom gets a grant of their own beneath it. */
export function standsForMany(kind: AddresseeKind): kind is Many {
  return kind === 'group' || kind === 'domain' || kind === 'link';
}

/** The group that is kept under this address; `null` where it is no group's. */
export function groupOf(address: string): GroupId | null {
  const id = address.startsWith(GROUP) ? address.slice(GROUP.length) : '';
  return isId('group', id) ? id : null;
}

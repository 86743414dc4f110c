import type { DispatchId, GroupId } from '@/core/base/ids';

/** Who a grant can be for: a person, a live group, every address at a domain, or whoever holds an open link. */
export const ADDRESSEE_KINDS = ['person', 'group', 'domain', 'link'] as const;
export type AddresseeKind = (typeof ADDRESSEE_KINDS)[number];

/** Under what a group or the holders of a link are kept among the addresses: no address is spelled so. A domain is `@yard.example`. */
export const addressOfGroup = (id: GroupId): string => `group:${id}`;
export const addressOfLink = (dispatch: DispatchId): string => `link:${dispatch}`;

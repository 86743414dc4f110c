import { z } from 'zod';
import { recipientId } from '@/contracts/access';
import { emailAddress } from '@/contracts/address';
import { isZone } from '@/core/base/zone-format';
import { isLanguage } from '@/contracts/locale';
import { orderBy, type Page } from '@/contracts/page';
import { PEOPLE_ORDERS } from '@/core/base/order';
import { groupId, type GrantRow } from '@/contracts/dispatch';
import type { OwnPasskey } from '@/contracts/passkeys';
import type { RefusalReason } from '@/core/policy/decide';
import type { DeviceId, DocumentId, GroupId, RecipientId } from '@/core/base/ids';

export type PersonRow = {
  readonly id: RecipientId;
  readonly name: string;
  readonly address: string;
  readonly organisation: string;
  readonly zone: string | null;
  readonly language: string | null;
  /** What the organisation itself calls them by. */
  readonly ownId: string | null;
  readonly blocked: boolean;
  /** When they were said to have left their organisation. */
  readonly leftAt: number | null;
  readonly documents: number;
  /** Grants that can be opened now. */
  readonly live: number;
  readonly opens: number;
  readonly lastOpen: number | null;
};

export type PeoplePage = Page<PersonRow> & {
  readonly organisations: number;
  readonly groups: readonly GroupRow[];
};

type DeviceRow = {
  readonly id: DeviceId;
  readonly label: string;
  /** What they call it; null: nothing. */
  readonly name: string | null;
  readonly kept: boolean;
  readonly since: number;
  readonly until: number;
  /** When something was opened on it last; null: nothing was. */
  readonly openedAt: number | null;
};

export type PersonDetail = PersonRow & {
  readonly grants: readonly GrantRow[];
  readonly devices: readonly DeviceRow[];
  readonly passkeys: readonly OwnPasskey[];
  /**
   * Until when a device of theirs reads on without asking, by whichever of their addresses; null: none
   * does, or not for the person who looks.
   */
  readonly readsOn: number | null;
  readonly refusals: number;
  /** How often somebody else was refused by a link of theirs. */ readonly byTheirLinks: number;
  /** The groups they are in, and all there are. */ readonly inGroups: readonly GroupId[];
  /** Their other addresses. */ readonly others: readonly {
    readonly id: RecipientId;
    readonly address: string;
  }[];
  /**
   * Whether they can open each document that they hold anything on, by whatever route, and else why
   * not.
   */
  readonly reach: readonly {
    readonly document: DocumentId;
    readonly reason: RefusalReason | null;
  }[];
  /** What would let them in along with everyone at their domain. */ readonly wider: readonly GrantRow[];
  readonly groups: readonly GroupRow[];
};

export type GroupRow = {
  readonly id: GroupId;
  readonly name: string;
  readonly people: number;
  /**
   * Dispatches that are for the group as such: who joins it is given them, who leaves it loses them.
   */
  readonly live: number;
};

/** A group made or renamed. */
export const putGroupInput = z.object({
  id: groupId.nullable(),
  name: z.string().trim().min(1, 'the group needs a name').max(80),
});
export const groupInput = z.object({ id: groupId });
/** Who comes into a group and who goes. */
export const changeMembersInput = z.object({
  id: groupId,
  add: z.array(recipientId).max(2_000).default([]),
  remove: z.array(recipientId).max(2_000).default([]),
});

/** Grants that came to people and that ended by it. */
export type MembersChanged = { readonly given: number; readonly ended: number };

/** Another address of the same person. */
export const addressInput = z.object({ id: recipientId, address: emailAddress });
export type AddressInput = z.infer<typeof addressInput>;
export const personIdInput = z.object({ id: recipientId });

export const listPeopleInput = z.object({
  q: z.string().trim().max(200).default(''),
  organisation: z.string().max(120).optional(),
  group: groupId.optional(),
  sort: orderBy(PEOPLE_ORDERS).optional(),
  after: recipientId.optional(),
});
export type ListPeopleInput = z.infer<typeof listPeopleInput>;
export const peopleInput = listPeopleInput.extend({ person: recipientId.optional() });

/** What is known about a person; what is absent stays as it is. */
export const changePersonInput = z.object({
  id: recipientId,
  name: z.string().trim().max(120).optional(),
  organisation: z.string().trim().max(120).optional(),
  zone: z.string().refine(isZone, 'this is not a time zone').nullable().optional(),
  language: z.string().refine(isLanguage, 'this is not a language').nullable().optional(),
  ownId: z.string().trim().min(1).max(120).nullable().optional(),
});
export type ChangePersonInput = z.infer<typeof changePersonInput>;
/** The same as it is typed. */
export type PersonFields = z.input<typeof changePersonInput>;

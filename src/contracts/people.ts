import { z } from 'zod';
import { recipientId } from '@/contracts/access';
import { isLanguage, isZone } from '@/contracts/locale';
import type { Page } from '@/contracts/page';
import type { GrantRow } from '@/contracts/dispatch';
import type { DeviceId, RecipientId } from '@/core/base/ids';

export type PersonRow = {
  readonly id: RecipientId;
  readonly name: string;
  readonly address: string;
  readonly organisation: string;
  readonly zone: string | null;
  readonly language: string | null;
  readonly blocked: boolean;
  readonly documents: number;
  /** Grants that can be opened now. */
  readonly live: number;
  readonly opens: number;
  readonly lastOpen: number | null;
};

export type PeoplePage = Page<PersonRow> & { readonly organisations: number };

export type DeviceRow = { readonly id: DeviceId; readonly label: string; readonly kept: boolean; readonly since: number; readonly until: number };

export type PersonDetail = PersonRow & { readonly grants: readonly GrantRow[]; readonly devices: readonly DeviceRow[]; readonly refusals: number };

export const listPeopleInput = z.object({ q: z.string().trim().max(200).default(''), organisation: z.string().max(120).optional(), after: recipientId.optional() });
export type ListPeopleInput = z.infer<typeof listPeopleInput>;
export const peopleInput = listPeopleInput.extend({ person: recipientId.optional() });

/** What is known about a person; what is absent stays as it is. */
export const changePersonInput = z.object({
  id: recipientId, name: z.string().trim().max(120).optional(), organisation: z.string().trim().max(120).optional(),
  zone: z.string().refine(isZone, 'that is no time zone').nullable().optional(),
  language: z.string().refine(isLanguage, 'that is no language').nullable().optional(),
});
export type ChangePersonInput = z.infer<typeof changePersonInput>;

import { z } from 'zod';
import { recipientId } from '@/contracts/access';
import type { GrantRow } from '@/contracts/dispatch';
import type { DeviceId, RecipientId } from '@/core/base/ids';

export type PersonRow = {
  readonly id: RecipientId;
  readonly name: string;
  readonly address: string;
  readonly organisation: string;
  readonly blocked: boolean;
  readonly documents: number;
  /** Grants that can be opened now. */
  readonly live: number;
  readonly opens: number;
  readonly lastOpen: number | null;
};

export type DeviceRow = { readonly id: DeviceId; readonly label: string; readonly kept: boolean; readonly since: number; readonly until: number };

export type PersonDetail = PersonRow & { readonly grants: readonly GrantRow[]; readonly devices: readonly DeviceRow[]; readonly refusals: number };

export const peopleInput = z.object({ person: recipientId.optional() });

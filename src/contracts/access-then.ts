import { z } from 'zod';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import { recipientId } from '@/contracts/access';
import { dispatchId } from '@/contracts/dispatch';
import { documentId } from '@/contracts/document';
import type { AddresseeKind } from '@/core/policy/addressee';
import type { RefusalReason } from '@/core/policy/decide';
import type { Right } from '@/core/policy/rights';

const moment = z.number().int().min(0).max(8_640_000_000_000_000);

/**
 * Who could open something at a moment: a document, what a dispatch carried, or whatever a person
 * was given; compared with another moment, or another person.
 */
export const accessThenInput = z.object({
  of: z.union([
    z.object({ document: documentId }),
    z.object({ dispatch: dispatchId }),
    z.object({ recipient: recipientId }),
  ]),
  at: moment,
  /** Another moment to compare with. */
  also: moment.nullish(),
  /** Somebody else, by email address, to compare a person with. */
  other: z.string().trim().max(320).nullish(),
});
export type AccessThenInput = z.infer<typeof accessThenInput>;

/** What somebody could do with a document at a moment, wherever they were. */
export type StateThen =
  | {
      readonly opens: true;
      readonly rights: readonly Right[];
      readonly printsLeft: number | null;
      readonly until: number | null;
    }
  | { readonly opens: false; readonly reason: RefusalReason };

export type AccessThenRow = {
  readonly recipient: RecipientId;
  readonly kind: AddresseeKind;
  readonly name: string;
  readonly address: string;
  readonly organisation: string;
  readonly document: DocumentId;
  readonly title: string;
  readonly reference: string;
  readonly then: StateThen;
  /** At the other moment, or of the other person; null: nothing is compared. */
  readonly compared: StateThen | null;
};

export type AccessThen = {
  readonly rows: readonly AccessThenRow[];
  /** The other person by name, where there is one. */
  readonly other: string | null;
};

import { z } from 'zod';
import { isId, type DocumentId, type GrantId, type RecipientId } from '@/core/base/ids';
import type { AddresseeKind } from '@/core/policy/addressee';
import type { Scope } from '@/core/policy/scope';
import { emailAddress } from '@/contracts/address';
import { dispatchId, grantId, groupId } from '@/contracts/dispatch';
import { reasonInput } from '@/contracts/settings';
import { documentId } from '@/contracts/document';

export const recipientId = z.custom<RecipientId>(
  (value) => typeof value === 'string' && isId('recipient', value),
  'no such person',
);

/** Whether pages are read aloud to somebody, on every document of the owner of this one. */
export const readingAidsInput = z.object({
  id: documentId,
  recipient: recipientId,
  on: z.boolean(),
  reason: reasonInput,
});
export type ReadingAidsInput = z.output<typeof readingAidsInput>;

const scopeInput: z.ZodType<Scope> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('person'), recipient: recipientId }),
  z.object({ kind: z.literal('organisation'), organisation: z.string().trim().min(1).max(120) }),
  z.object({ kind: z.literal('dispatch'), dispatch: dispatchId }),
  z.object({ kind: z.literal('group'), group: groupId }),
  z.object({ kind: z.literal('person-on-document'), recipient: recipientId, document: documentId }),
]);
/** `also`: further grants, so that people who would come in by another way do not. */
export const scopedInput = z.object({
  scope: scopeInput,
  also: z.array(grantId).max(10_000).optional(),
  reason: reasonInput,
});

/**
 * How somebody still comes in: by a grant of their own, as one of a group, by what was passed on to
 * them, or along with a domain.
 */
export type WayIn = {
  readonly grant: GrantId;
  readonly by: 'own' | 'group' | 'passed-on' | 'domain';
  /** The group, who passed it on, or the domain. */
  readonly name: string;
  readonly dispatch: string;
  /** Whether the viewer may close it. */
  readonly mayClose: boolean;
};
/** Somebody who can open a document although what is revoked would have been a way to it. */
export type StillReads = {
  readonly recipient: RecipientId;
  readonly name: string;
  readonly document: DocumentId;
  readonly title: string;
  readonly ways: readonly WayIn[];
};

/** Whose device reads on without asking, whatever is ended, and until when at the latest. */
export type ReadsOn = { readonly name: string; readonly until: number };

/** What revoking these grants does, or did: to people, not to grants. */
export type RevokeEffect = {
  /** Names of people who could open something of it and can read none of it any more. */
  readonly shutOut: readonly string[];
  /** Of those who cannot open it any more. */
  readonly readsOn: readonly ReadsOn[];
  /**
   * What stands for many and lets nobody in any more: groups, domains, or anyone who has an open link
   * (its name is empty).
   */
  readonly closes: readonly { readonly kind: AddresseeKind; readonly name: string }[];
  readonly stillReads: readonly StillReads[];
  /** How many could open none of it anyway. */
  readonly ofNone: number;
  /** Documents that anyone who holds an open link still reads, and by which dispatch. */
  readonly openLinks: readonly { readonly title: string; readonly dispatch: string }[];
  /**
   * What no revocation reaches, as it stands on the ledger: prints, and people who kept a copy,
   * were sent text or copied it.
   */
  readonly printsMade: number;
  readonly keptBy: number;
  readonly textSentTo: number;
  readonly copiedBy: number;
};
/** Whom a cut would hit, before it is made. */
export type RevokePreview = {
  readonly grants: number;
  readonly documents: number;
  readonly effect: RevokeEffect;
  /** Grants in the scope that this member of staff may not change; the cut leaves them. */
  readonly beyondPower: number;
};
export type RevokeResult = { readonly grants: readonly GrantId[] };

/** Somebody left their organisation; the person who takes over, if anybody, is given what they could still open. */
export const leftInput = z.object({
  id: recipientId,
  successor: z.union([z.literal('').transform(() => null), emailAddress]).nullish(),
});
export type LeftInput = z.infer<typeof leftInput>;
/** Documents that somebody else took over, and groups that were left. */
export type HasLeft = { readonly given: number; readonly groups: number };

export const blockInput = z.object({ id: recipientId, blocked: z.boolean(), reason: reasonInput });
export const destroyKeyInput = z.object({ id: documentId, typed: z.string(), reason: reasonInput });

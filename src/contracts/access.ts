import { z } from 'zod';
import { isId, type GrantId, type RecipientId } from '@/core/base/ids';
import type { Scope } from '@/core/policy/scope';
import { emailAddress } from '@/contracts/address';
import { dispatchId, groupId } from '@/contracts/dispatch';
import { documentId } from '@/contracts/document';

export const recipientId = z.custom<RecipientId>((value) => typeof value === 'string' && isId('recipient', value), 'no such person');

const scopeInput: z.ZodType<Scope> = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('person'), recipient: recipientId }),
  z.object({ kind: z.literal('organisation'), organisation: z.string().trim().min(1).max(120) }),
  z.object({ kind: z.literal('dispatch'), dispatch: dispatchId }),
  z.object({ kind: z.literal('group'), group: groupId }),
  z.object({ kind: z.literal('person-on-document'), recipient: recipientId, document: documentId }),
]);
export const scopedInput = z.object({ scope: scopeInput });

/** Whom a cut would hit, before it is made. */
export type CutPreview = {
  readonly grants: number;
  readonly people: readonly string[];
  readonly documents: number;
  /** What is beyond reach: print renditions made, and people who had the right to keep and opened. */
  readonly printsMade: number;
  readonly mayHaveKept: number;
  /** Grants in the scope that this member of staff may not change; the cut leaves them. */
  readonly beyondPower: number;
};
export type CutResult = { readonly grants: readonly GrantId[] };

/** Somebody left their organisation; whoever takes over, if anybody, is given what they could still open. */
export const leftInput = z.object({ id: recipientId, successor: z.union([z.literal('').transform(() => null), emailAddress]).nullish() });
export type LeftInput = z.infer<typeof leftInput>;
/** Documents that somebody else took over, and groups that were left. */
export type HasLeft = { readonly given: number; readonly groups: number };

export const blockInput = z.object({ id: recipientId, blocked: z.boolean() });
export const destroyKeyInput = z.object({ id: documentId, typed: z.string() });

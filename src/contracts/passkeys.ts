import { z } from 'zod';
import type {
  AuthenticationResponseJSON,
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
  RegistrationResponseJSON,
} from '@simplewebauthn/server';
import { isId, type Id } from '@/core/base/ids';
import { publicKey } from '@/contracts/reader';

export const passkeyIdInput = z.object({
  passkey: z.custom<Id<'passkey'>>(
    (value) => typeof value === 'string' && isId('passkey', value),
    'no such passkey',
  ),
});

/** What a browser hands in of a passkey (WebAuthn Level 3, §5.1): looked at closely where it is checked. */
const answer = { id: z.string().max(1_400), response: z.looseObject({}) };
const isMade = z.custom<RegistrationResponseJSON>(
  (value) => z.looseObject(answer).safeParse(value).success,
  'no answer of a passkey',
);
const isUsed = z.custom<AuthenticationResponseJSON>(
  (value) => z.looseObject(answer).safeParse(value).success,
  'no answer of a passkey',
);

/** `another`: besides those there are, once one of them was used. */
export const beginPasskeyInput = z.object({ another: z.boolean().default(false) });
export const finishPasskeyInput = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('make'), answer: isMade }),
  z.object({ kind: z.literal('use'), answer: isUsed }),
]);
export type FinishPasskeyInput = z.infer<typeof finishPasskeyInput>;
/** Coming in by a passkey in place of a code. */
export const enterByPasskeyInput = z.object({ answer: isUsed, kept: z.boolean(), publicKey });
export type EnterByPasskeyInput = z.infer<typeof enterByPasskeyInput>;

/** What the browser is to ask its user for: to make a passkey, where they have none, or to use one. */
export type PasskeyAsked =
  | { readonly kind: 'make'; readonly options: PublicKeyCredentialCreationOptionsJSON }
  | { readonly kind: 'use'; readonly options: PublicKeyCredentialRequestOptionsJSON };

/** A passkey of the person who asks. */
export type OwnPasskey = {
  readonly id: Id<'passkey'>;
  /** What it was made on. */
  readonly label: string;
  readonly since: number;
  readonly usedAt: number;
};

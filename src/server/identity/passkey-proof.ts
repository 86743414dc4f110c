import 'server-only';
import {
  generateAuthenticationOptions,
  generateRegistrationOptions,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
  type AuthenticationResponseJSON,
  type PublicKeyCredentialCreationOptionsJSON,
  type PublicKeyCredentialRequestOptionsJSON,
  type RegistrationResponseJSON,
} from '@simplewebauthn/server';

/** A passkey as it is known here: what its answers are checked with. */
export type Passkey = {
  /** The credential id, base64url. */
  readonly credential: string;
  /** COSE key (RFC 9052, §7). */
  readonly publicKey: Uint8Array;
  /** How often it says that it was used; always 0 where it does not count. */
  readonly counter: number;
  readonly transports: readonly string[];
};

type Site = { readonly id: string; readonly origin: string };

/** Where passkeys of this product are good: they are bound to the host, and nowhere else will use them. */
function siteOf(publicUrl: string): Site {
  const { hostname, origin } = new URL(publicUrl);
  return { id: hostname, origin };
}

const named = ({ credential, transports }: Passkey) => ({
  id: credential,
  transports: [...transports],
});

/** Asks for a new passkey of somebody. @param user a number of theirs that says nothing about them */
export async function askToMake(
  publicUrl: string,
  {
    organisation,
    address,
    user,
    known,
  }: {
    readonly organisation: string;
    readonly address: string;
    readonly user: Uint8Array;
    readonly known: readonly Passkey[];
  },
): Promise<PublicKeyCredentialCreationOptionsJSON> {
  return generateRegistrationOptions({
    rpName: organisation,
    rpID: siteOf(publicUrl).id,
    userName: address,
    userDisplayName: address,
    userID: Uint8Array.from(user),
    attestationType: 'none',
    excludeCredentials: known.map(named),
    // It has to be found without the address, and to make sure of who uses it: else it were no second proof.
    authenticatorSelection: { residentKey: 'required', userVerification: 'required' },
  });
}

/** Asks to use one of these passkeys; of none: of whichever the browser has. */
export async function askToUse(
  publicUrl: string,
  known: readonly Passkey[],
): Promise<PublicKeyCredentialRequestOptionsJSON> {
  return generateAuthenticationOptions({
    rpID: siteOf(publicUrl).id,
    userVerification: 'required',
    allowCredentials: known.map(named),
  });
}

/** The passkey that was made in answer to a challenge; null: the answer is not good. */
export async function madePasskey(
  publicUrl: string,
  answer: RegistrationResponseJSON,
  challenge: string,
): Promise<Passkey | null> {
  const { id, origin } = siteOf(publicUrl);
  const checked = await verifyRegistrationResponse({
    response: answer,
    expectedChallenge: challenge,
    expectedOrigin: origin,
    expectedRPID: id,
    requireUserVerification: true,
  }).catch(() => null);
  if (checked?.verified !== true) return null;
  const { credential } = checked.registrationInfo;
  return {
    credential: credential.id,
    publicKey: credential.publicKey,
    counter: credential.counter,
    transports: credential.transports ?? [],
  };
}

/**
 * The counter after a passkey was used in answer to a challenge; null: the answer is not good. A
 * counter that does not grow, where there is one, says that the passkey was copied: that is not good
 * either (WebAuthn Level 3, §6.1.1).
 */
export async function usedPasskey(
  publicUrl: string,
  answer: AuthenticationResponseJSON,
  challenge: string,
  passkey: Passkey,
): Promise<{ readonly counter: number } | null> {
  const { id, origin } = siteOf(publicUrl);
  const checked = await verifyAuthenticationResponse({
    response: answer,
    expectedChallenge: challenge,
    expectedOrigin: origin,
    expectedRPID: id,
    requireUserVerification: true,
    credential: {
      id: passkey.credential,
      publicKey: Uint8Array.from(passkey.publicKey),
      counter: passkey.counter,
      transports: [...passkey.transports],
    },
  }).catch(() => null);
  return checked?.verified === true ? { counter: checked.authenticationInfo.newCounter } : null;
}

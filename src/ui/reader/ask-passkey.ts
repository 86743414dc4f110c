import type { OwnPasskey, PasskeyAsked } from '@/contracts/passkeys';
import { readerCall } from '@/ui/reader/reader-call';

/** Nobody used a passkey: they called it off, or have none here. */
export class NoPasskeyError extends Error {}

/** Whether this browser can have passkeys at all. */
export function hasPasskeys(): boolean {
  return 'PublicKeyCredential' in globalThis;
}

/**
 * What the browser answers for its user, who is asked for a fingerprint, face or PIN.
 *
 * @throws NoPasskeyError
 */
export async function answerTo(asked: PasskeyAsked): Promise<object> {
  // Few need it: it is loaded by those who do.
  const { startAuthentication, startRegistration } = await import('@simplewebauthn/browser');
  try {
    return asked.kind === 'make'
      ? await startRegistration({ optionsJSON: asked.options })
      : await startAuthentication({ optionsJSON: asked.options });
  } catch (cause) {
    throw new NoPasskeyError('no passkey was used', { cause });
  }
}

/**
 * Uses a passkey on this device, or makes one where there is none; `another`: makes one more, once
 * one was used.
 *
 * @throws NoPasskeyError, CallError
 */
export async function askPasskey(another = false): Promise<readonly OwnPasskey[]> {
  const asked = await readerCall<PasskeyAsked>('POST', '/api/v1/reader/passkeys/begin', {
    another,
  });
  const own = await readerCall<readonly OwnPasskey[]>('POST', '/api/v1/reader/passkeys/finish', {
    kind: asked.kind,
    answer: await answerTo(asked),
  });
  return another && asked.kind === 'use' ? askPasskey(true) : own;
}

import { Secret, TOTP } from 'otpauth';
import { SECOND, type Moment } from '@/core/base/time';

const STEP = 30 * SECOND;
/** Steps a phone's clock may be off, each way. */
const WINDOW = 1;

function totp(secret: string, label = ''): TOTP {
  return new TOTP({
    issuer: 'Embargo',
    label,
    secret: Secret.fromBase32(secret),
    period: STEP / SECOND,
    digits: 6,
    algorithm: 'SHA1',
  });
}

/** A new shared secret of 160 bits, in base 32 as authenticator apps take it (RFC 4226, 4). */
export function newFactorSecret(random: (length: number) => Uint8Array): string {
  return new Secret({ buffer: new Uint8Array(random(20)).buffer }).base32;
}

/** The address that an authenticator app reads from a QR code. */
export function factorAddress(secret: string, email: string): string {
  return totp(secret, email).toString();
}

/**
 * Checks a time-based code (RFC 6238).
 *
 * @returns the time step it stands for, later than `lastStep`, or `null` where it is wrong, old or was used before
 */
export function stepOfCode(
  secret: string,
  code: string,
  now: Moment,
  lastStep: number | null,
): number | null {
  const delta = totp(secret).validate({ token: code, timestamp: now, window: WINDOW });
  if (delta === null) return null;
  const step = Math.floor(now / STEP) + delta;
  return lastStep !== null && step <= lastStep ? null : step;
}

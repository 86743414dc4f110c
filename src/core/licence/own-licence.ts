import { z } from 'zod';
import { SECOND, type Moment } from '@/core/base/time';
import { verifyLicence } from '@/core/licence/licence';
import { LicenceError } from '@/core/licence/statement';
import { watermarkClaim } from '@/core/licence/watermark-claim';
import { RIGHTS, type Right } from '@/core/policy/rights';
import type { Watermark } from '@/core/watermark/layers';

/** What a licence allows where the document is opened on the person's own machine. */
export type OwnLicence = {
  readonly id: string;
  readonly document: string;
  readonly version: string;
  readonly device: string;
  readonly rights: readonly Right[];
  readonly watermark: Watermark;
  /** The thumbprint of the key that the content key is encrypted to (RFC 7638). */
  readonly keyThumbprint: string;
  readonly issuedAt: Moment;
  /** From when on nothing is shown any more. */
  readonly expiresAt: Moment;
  /** Until when it is read without asking; null: every open asks. */
  readonly offlineUntil: Moment | null;
  readonly readingAids: boolean;
};

const id = z.string().min(1).max(64);
const seconds = z.number().int().min(0).max(1e12);

const claims = z.object({
  document: id,
  version: id,
  device: id,
  rights: z.array(z.enum(RIGHTS)).min(1).max(RIGHTS.length),
  watermark: watermarkClaim,
  cnf: z.object({ jkt: z.string().regex(/^[\w-]{43}$/) }),
  iat: seconds,
  exp: seconds,
  offlineUntil: seconds.nullable(),
  readingAids: z.boolean(),
});

/** Longer statements are not looked at: a watermark has six layers at most. */
export const LONGEST_STATEMENT = 64 * 1024;

/**
 * The licence in a signed statement, checked against the service's key at a moment. Nothing of it is
 * used that was not signed.
 *
 * @throws LicenceError where it does not hold, or is none for a person's own machine
 */
export async function readOwnLicence(
  statement: string,
  publicKey: Uint8Array,
  issuer: string,
  now: Moment,
): Promise<OwnLicence> {
  if (statement.length > LONGEST_STATEMENT) throw new LicenceError('too long');
  const verified = await verifyLicence(statement, publicKey, issuer, now);
  const read = claims.safeParse(verified.claims);
  if (!read.success) throw new LicenceError(read.error);
  const { cnf, iat, exp, offlineUntil, ...rest } = read.data;
  return {
    ...rest,
    id: verified.id,
    keyThumbprint: cnf.jkt,
    issuedAt: iat * SECOND,
    expiresAt: exp * SECOND,
    offlineUntil: offlineUntil === null ? null : offlineUntil * SECOND,
  };
}

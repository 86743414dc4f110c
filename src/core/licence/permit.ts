import { z } from 'zod';
import type { Moment } from '@/core/base/time';
import type { LicenceId, RecipientId } from '@/core/base/ids';
import { LONGEST_STATEMENT } from '@/core/licence/own-licence';
import {
  LicenceError,
  statementSigner,
  verifyStatement,
  type Issuer,
} from '@/core/licence/statement';
import { watermarkClaim } from '@/core/licence/watermark-claim';
import type { Watermark } from '@/core/watermark/layers';

/** What may be taken out of a document on the person's own machine: some pages on paper, or all of it in the clear. */
export type Permit = {
  readonly licence: LicenceId;
  readonly recipient: RecipientId;
  readonly issuedAt: Moment;
  /** From when on it is not begun any more. */
  readonly expiresAt: Moment;
  /** Its pieces filled in: of paper the number of the copy as well. */
  readonly watermark: Watermark;
  readonly take: Take;
};
/** Which of the two, and which pages. */
type Take =
  | { readonly kind: 'print'; readonly from: number; readonly to: number }
  | { readonly kind: 'keep' };

const TYPE = 'embargo-permit+jwt';

export type PermitSigner = (permit: Permit) => Promise<string>;

/** A signer with the issuer's raw Ed25519 keys, 32 bytes each. */
export async function permitSigner(
  publicKey: Uint8Array,
  privateKey: Uint8Array,
  issuer: string,
): Promise<PermitSigner> {
  const sign = await statementSigner(TYPE, publicKey, privateKey, issuer);
  return ({ licence, recipient, issuedAt, expiresAt, watermark, take }) =>
    sign({ id: licence, recipient, issuedAt, expiresAt, claims: { watermark, take } });
}

const page = z.number().int().min(1).max(20_000);
const said = z.object({
  watermark: watermarkClaim,
  take: z.discriminatedUnion('kind', [
    z.object({ kind: z.literal('print'), from: page, to: page }),
    z.object({ kind: z.literal('keep') }),
  ]),
});

/**
 * The permit in a signed statement, for this licence alone, checked against the service's key at a
 * moment. Nothing of it is used that was not signed.
 *
 * @throws LicenceError where it does not hold
 */
export async function readPermit(
  statement: string,
  issuer: Issuer,
  licence: string,
  now: Moment,
): Promise<Pick<Permit, 'watermark' | 'take'>> {
  if (statement.length > LONGEST_STATEMENT) throw new LicenceError('too long');
  const { id, claims } = await verifyStatement(TYPE, statement, issuer, now);
  const read = said.safeParse(claims);
  if (!read.success) throw new LicenceError(read.error);
  if (id !== licence) throw new LicenceError('of another licence');
  return read.data;
}

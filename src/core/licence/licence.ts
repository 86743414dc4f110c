import { SECOND, type Moment } from '@/core/base/time';
import type {
  DeviceId,
  DocumentId,
  GrantId,
  LicenceId,
  RecipientId,
  VersionId,
} from '@/core/base/ids';
import { statementSigner, verifyStatement, type Statement } from '@/core/licence/statement';
import type { Right } from '@/core/policy/rights';
import type { Watermark } from '@/core/watermark/layers';

/** The statement that one open is allowed. Moments are ms since the epoch. */
export type Licence = {
  readonly id: LicenceId;
  readonly grant: GrantId;
  readonly document: DocumentId;
  readonly version: VersionId;
  readonly recipient: RecipientId;
  readonly device: DeviceId;
  readonly rights: readonly Right[];
  /** Its pieces filled in. */
  readonly watermark: Watermark;
  readonly issuedAt: Moment;
  readonly expiresAt: Moment;
  /** Where the document is opened on the person's own machine. */
  readonly own?: OwnTerms;
};

/** What holds where a document is opened on the person's own machine. */
type OwnTerms = {
  /** The thumbprint (RFC 7638) of the key that the content key was encrypted to (RFC 7800 §3.4). */
  readonly keyThumbprint: string;
  /** Until when it may be read there without asking again; null: every open asks. */
  readonly offlineUntil: Moment | null;
  /** Text comes for a screen reader, although it may not be copied. */
  readonly readingAids: boolean;
};

const TYPE = 'embargo-licence+jwt';

function ownClaims({ keyThumbprint, offlineUntil, readingAids }: OwnTerms) {
  return {
    cnf: { jkt: keyThumbprint },
    offlineUntil: offlineUntil === null ? null : Math.floor(offlineUntil / SECOND),
    readingAids,
  };
}

export type LicenceSigner = (licence: Licence) => Promise<string>;

/** A signer with the issuer's raw Ed25519 keys, 32 bytes each. */
export async function licenceSigner(
  publicKey: Uint8Array,
  privateKey: Uint8Array,
  issuer: string,
): Promise<LicenceSigner> {
  const sign = await statementSigner(TYPE, publicKey, privateKey, issuer);
  return ({ id, recipient, issuedAt, expiresAt, own, ...said }) => {
    const claims = { ...said, ...(own === undefined ? {} : ownClaims(own)) };
    return sign({ id, recipient, issuedAt, expiresAt, claims });
  };
}

/**
 * Verifies a licence at a moment.
 *
 * @throws LicenceError where signature, type, issuer or time do not hold
 */
export function verifyLicence(
  statement: string,
  publicKey: Uint8Array,
  issuer: string,
  now: Moment,
): Promise<Pick<Statement, 'id' | 'recipient' | 'claims'>> {
  return verifyStatement(TYPE, statement, { name: issuer, publicKey }, now);
}

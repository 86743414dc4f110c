import { SignJWT, importJWK, jwtVerify, errors, type CryptoKey } from 'jose';
import { base64urlnopad } from '@scure/base';
import { AppError } from '@/core/base/errors';
import { SECOND, type Moment } from '@/core/base/time';
import type {
  DeviceId,
  DocumentId,
  GrantId,
  LicenceId,
  RecipientId,
  VersionId,
} from '@/core/base/ids';
import type { Right } from '@/core/policy/rights';
import type { Watermark } from '@/core/watermark/layers';

/**
 * The statement that one open is allowed. Moments are ms since the epoch; the signed form carries
 * seconds (RFC 7519).
 */
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

/** A licence that does not hold. */
export class LicenceError extends AppError<'BAD_LICENCE'> {
  constructor(cause?: unknown) {
    super('LicenceError', 'BAD_LICENCE', 'This licence is not valid.', { cause });
  }
}

const TYPE = 'embargo-licence+jwt';
const ALGORITHM = 'EdDSA';

async function toKey(publicKey: Uint8Array, privateKey?: Uint8Array): Promise<CryptoKey> {
  const jwk = {
    kty: 'OKP',
    crv: 'Ed25519',
    x: base64urlnopad.encode(publicKey),
    ...(privateKey === undefined ? {} : { d: base64urlnopad.encode(privateKey) }),
  };
  const key = await importJWK(jwk, ALGORITHM);
  if (key instanceof Uint8Array) throw new LicenceError('not an Ed25519 key');
  return key;
}

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
  const key = await toKey(publicKey, privateKey);
  return ({ id, recipient, issuedAt, expiresAt, own, ...claims }) =>
    new SignJWT({ ...claims, ...(own === undefined ? {} : ownClaims(own)) })
      .setProtectedHeader({ alg: ALGORITHM, typ: TYPE })
      .setIssuer(issuer)
      .setSubject(recipient)
      .setJti(id)
      .setIssuedAt(Math.floor(issuedAt / SECOND))
      .setExpirationTime(Math.floor(expiresAt / SECOND))
      .sign(key);
}

/**
 * Verifies a licence at a moment (RFC 7515, RFC 8037).
 *
 * @throws LicenceError where signature, type, issuer or time do not hold
 */
export async function verifyLicence(
  statement: string,
  publicKey: Uint8Array,
  issuer: string,
  now: Moment,
): Promise<{
  readonly id: string;
  readonly recipient: string;
  readonly claims: Readonly<Record<string, unknown>>;
}> {
  try {
    const { payload } = await jwtVerify(statement, await toKey(publicKey), {
      issuer,
      typ: TYPE,
      algorithms: [ALGORITHM],
      currentDate: new Date(now),
      requiredClaims: ['jti', 'sub', 'exp'],
    });
    return { id: payload.jti ?? '', recipient: payload.sub ?? '', claims: payload };
  } catch (cause) {
    if (cause instanceof errors.JOSEError) throw new LicenceError(cause);
    throw cause;
  }
}

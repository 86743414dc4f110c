import { SignJWT, importJWK, jwtVerify, errors, type CryptoKey } from 'jose';
import { base64urlnopad } from '@scure/base';
import { AppError } from '@/core/base/errors';
import { SECOND, type Moment } from '@/core/base/time';

/** A licence, or another signed statement about one, that does not hold. */
export class LicenceError extends AppError<'BAD_LICENCE'> {
  constructor(cause?: unknown) {
    super('LicenceError', 'BAD_LICENCE', 'This licence is not valid.', { cause });
  }
}

/** What every statement says. Moments are ms since the epoch; the signed form carries seconds (RFC 7519). */
export type Statement = {
  /** Of the licence that it is about. */
  readonly id: string;
  readonly recipient: string;
  readonly issuedAt: Moment;
  readonly expiresAt: Moment;
  readonly claims: Readonly<Record<string, unknown>>;
};

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

export type StatementSigner = (statement: Statement) => Promise<string>;

/** A signer of one type of statement with the issuer's raw Ed25519 keys, 32 bytes each. */
export async function statementSigner(
  type: string,
  publicKey: Uint8Array,
  privateKey: Uint8Array,
  issuer: string,
): Promise<StatementSigner> {
  const key = await toKey(publicKey, privateKey);
  return ({ id, recipient, issuedAt, expiresAt, claims }) =>
    new SignJWT({ ...claims })
      .setProtectedHeader({ alg: ALGORITHM, typ: type })
      .setIssuer(issuer)
      .setSubject(recipient)
      .setJti(id)
      .setIssuedAt(Math.floor(issuedAt / SECOND))
      .setExpirationTime(Math.floor(expiresAt / SECOND))
      .sign(key);
}

/** Whose word is taken: the service's name, and its Ed25519 key, 32 bytes. */
export type Issuer = { readonly name: string; readonly publicKey: Uint8Array };

/**
 * Verifies a statement of one type at a moment (RFC 7515, RFC 8037).
 *
 * @throws LicenceError where signature, type, issuer or time do not hold
 */
export async function verifyStatement(
  type: string,
  statement: string,
  { name, publicKey }: Issuer,
  now: Moment,
): Promise<Pick<Statement, 'id' | 'recipient' | 'claims'>> {
  try {
    const { payload } = await jwtVerify(statement, await toKey(publicKey), {
      issuer: name,
      typ: type,
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

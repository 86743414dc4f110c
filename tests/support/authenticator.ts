// A device that holds passkeys, as far as a server can tell (WebAuthn Level 3, §6), made of nothing but
// what Node has.
import { createHash, randomBytes, webcrypto, type webcrypto as Web } from 'node:crypto';
import type {
  AuthenticationResponseJSON,
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
  RegistrationResponseJSON,
} from '@simplewebauthn/server';

const ES256 = { name: 'ECDSA', namedCurve: 'P-256' } as const;
const PRESENT = 0x01;
const VERIFIED = 0x04;
const CARRIES_KEY = 0x40;

/** CBOR (RFC 8949): the head of an item, up to 65,535 long. */
function head(major: number, length: number): Buffer {
  if (length < 24) return Buffer.from([(major << 5) | length]);
  if (length < 256) return Buffer.from([(major << 5) | 24, length]);
  return Buffer.from([(major << 5) | 25, length >> 8, length & 255]);
}
const cborBytes = (bytes: Uint8Array): Buffer => Buffer.concat([head(2, bytes.length), bytes]);
const cborText = (text: string): Buffer =>
  Buffer.concat([head(3, Buffer.byteLength(text)), Buffer.from(text)]);
/** A whole number; one below zero is written as how far it is below -1. */
const cborNumber = (n: number): Buffer => (n >= 0 ? head(0, n) : head(1, -1 - n));
const cborMap = (...pairs: readonly (readonly [Buffer, Buffer])[]): Buffer =>
  Buffer.concat([head(5, pairs.length), ...pairs.flat()]);

const sha256 = (data: Uint8Array | string): Buffer => createHash('sha256').update(data).digest();
const url = (bytes: Uint8Array): string => Buffer.from(bytes).toString('base64url');

/** An ECDSA signature as WebAuthn has it: DER (SEC 1, C.5), where the platform gives r and s. */
function der(raw: Uint8Array): Buffer {
  const whole = (bytes: Uint8Array): Buffer => {
    let from = 0;
    while (from < bytes.length - 1 && bytes[from] === 0) from++;
    const digits = Buffer.from(bytes.subarray(from));
    const positive = (digits[0] ?? 0) > 127 ? Buffer.concat([Buffer.from([0]), digits]) : digits;
    return Buffer.concat([Buffer.from([2, positive.length]), positive]);
  };
  const both = Buffer.concat([whole(raw.subarray(0, 32)), whole(raw.subarray(32))]);
  return Buffer.concat([Buffer.from([0x30, both.length]), both]);
}

type How = {
  /** Where the browser says that it is. */ readonly origin?: string;
  /** Whether finger, face or PIN were asked for. */ readonly verified?: boolean;
  /** How often it says that it was used. */ readonly counter?: number;
};

export class Authenticator {
  readonly #credential = randomBytes(32);
  #keys: Web.CryptoKeyPair | null = null;
  #used = 0;

  constructor(readonly origin: string) {}

  #client(type: string, challenge: string, { origin = this.origin }: How): Buffer {
    return Buffer.from(JSON.stringify({ type, challenge, origin, crossOrigin: false }));
  }

  #data(site: string, flags: number, { verified = true, counter = this.#used }: How): Buffer {
    const count = Buffer.alloc(4);
    count.writeUInt32BE(counter);
    const all = flags | PRESENT | (verified ? VERIFIED : 0);
    return Buffer.concat([sha256(site), Buffer.from([all]), count]);
  }

  /** Makes a passkey, as a browser that was given these options does. */
  async make(
    { challenge, rp }: PublicKeyCredentialCreationOptionsJSON,
    how: How = {},
  ): Promise<RegistrationResponseJSON> {
    this.#keys = await webcrypto.subtle.generateKey(ES256, true, ['sign', 'verify']);
    const { x = '', y = '' } = await webcrypto.subtle.exportKey('jwk', this.#keys.publicKey);
    const key = cborMap(
      [cborNumber(1), cborNumber(2)],
      [cborNumber(3), cborNumber(-7)],
      [cborNumber(-1), cborNumber(1)],
      [cborNumber(-2), cborBytes(Buffer.from(x, 'base64url'))],
      [cborNumber(-3), cborBytes(Buffer.from(y, 'base64url'))],
    );
    const length = Buffer.from([0, this.#credential.length]);
    const authData = Buffer.concat([
      this.#data(rp.id ?? '', CARRIES_KEY, how),
      Buffer.alloc(16),
      length,
      this.#credential,
      key,
    ]);
    const attestation = cborMap(
      [cborText('fmt'), cborText('none')],
      [cborText('attStmt'), cborMap()],
      [cborText('authData'), cborBytes(authData)],
    );
    return {
      id: url(this.#credential),
      rawId: url(this.#credential),
      type: 'public-key',
      clientExtensionResults: {},
      response: {
        clientDataJSON: url(this.#client('webauthn.create', challenge, how)),
        attestationObject: url(attestation),
        transports: ['internal'],
      },
    };
  }

  /** Uses the passkey, as a browser that was given these options does. */
  async use(
    { challenge, rpId }: PublicKeyCredentialRequestOptionsJSON,
    how: How = {},
  ): Promise<AuthenticationResponseJSON> {
    if (this.#keys === null) throw new Error('no passkey was made');
    this.#used++;
    const data = this.#data(rpId ?? '', 0, how);
    const client = this.#client('webauthn.get', challenge, how);
    const raw = await webcrypto.subtle.sign(
      { name: 'ECDSA', hash: 'SHA-256' },
      this.#keys.privateKey,
      Buffer.concat([data, sha256(client)]),
    );
    return {
      id: url(this.#credential),
      rawId: url(this.#credential),
      type: 'public-key',
      clientExtensionResults: {},
      response: {
        clientDataJSON: url(client),
        authenticatorData: url(data),
        signature: url(der(new Uint8Array(raw))),
      },
    };
  }
}

import {
  Encrypter,
  generateHybridIdentity,
  generateX25519Identity,
  identityToRecipient,
} from 'age-encryption';
import { bech32 } from '@scure/base';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { isPublicKey } from '@/core/age/public-key';

/** What the package that encrypts takes. */
function isTaken(text: string): boolean {
  try {
    new Encrypter().addRecipient(text);
    return true;
  } catch {
    return false;
  }
}

test('knows the public keys that are made', async () => {
  for (const make of [generateX25519Identity, generateHybridIdentity])
    expect(isPublicKey(await identityToRecipient(await make()))).toBe(true);
});

test('takes what the package takes, and nothing else', async () => {
  const prefixes = ['age', 'age1pq', 'age1tag', 'age1tagpq', 'ag', 'age1', 'constructor'];
  const lengths = [0, 31, 32, 33, 1215, 1216, 1249];
  const taken = new Set<boolean>();
  for (const prefix of prefixes)
    for (const length of lengths) {
      const words = bech32.toWords(new Uint8Array(length).fill(length % 251));
      const text = bech32.encode(prefix as 'age', words, false);
      for (const each of [text, text.toUpperCase(), `${text} `, ` ${text}`, text.slice(0, -1)]) {
        expect([each, isPublicKey(each)]).toEqual([each, isTaken(each)]);
        taken.add(isPublicKey(each));
      }
    }
  expect(taken).toEqual(new Set([true, false]));
  const key = await identityToRecipient(await generateX25519Identity());
  fc.assert(
    fc.property(fc.nat(key.length - 1), fc.string({ maxLength: 3 }), (at, put) => {
      const altered = key.slice(0, at) + put + key.slice(at + 1);
      expect(isPublicKey(altered)).toBe(isTaken(altered));
    }),
  );
});

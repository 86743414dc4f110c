import sodium from 'libsodium-wrappers';
import type { ChunkCipherFactory } from '@/core/age/chunks';

/**
 * ChaCha20-Poly1305 by libsodium as WebAssembly: of the ciphers a browser can have, the fastest for
 * age's chunks (docs/format.md has the figures). Ready once the promise is kept.
 */
export async function sodiumChunkCipher(): Promise<ChunkCipherFactory> {
  await sodium.ready;
  return (key) => ({
    seal: (nonce, plain) => [
      sodium.crypto_aead_chacha20poly1305_ietf_encrypt(plain, null, null, nonce, key),
    ],
    open: (nonce, sealed) => {
      try {
        return sodium.crypto_aead_chacha20poly1305_ietf_decrypt(null, sealed, null, nonce, key);
      } catch {
        return null;
      }
    },
  });
}

declare module 'sodium-native' {
  const sodium: {
    /** ChaCha20-Poly1305 (RFC 8439): `sealed` is as long as `plain` and a tag of 16 bytes. */
    readonly crypto_aead_chacha20poly1305_ietf_encrypt: (
      sealed: Uint8Array,
      plain: Uint8Array,
      additional: Uint8Array | null,
      secretNonce: null,
      nonce: Uint8Array,
      key: Uint8Array,
    ) => number;
    /** @throws Error where the tag does not verify */
    readonly crypto_aead_chacha20poly1305_ietf_decrypt: (
      plain: Uint8Array,
      secretNonce: null,
      sealed: Uint8Array,
      additional: Uint8Array | null,
      nonce: Uint8Array,
      key: Uint8Array,
    ) => number;
  };
  export default sodium;
}

import { bytesToHex } from '@noble/hashes/utils.js';

/**
 * SHA-256 of the parts, one after another; text stands for its UTF-8. A port: node:crypto on the
 * server, noble elsewhere.
 */
export type Hash = (...parts: readonly (Uint8Array | string)[]) => Uint8Array;

/** `previous` of the first entry. */
export const GENESIS = bytesToHex(new Uint8Array(32));

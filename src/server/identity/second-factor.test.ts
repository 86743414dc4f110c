import { randomBytes } from 'node:crypto';
import { describe, expect, test } from 'vitest';
import { Secret } from 'otpauth';
import { factorAddress, newFactorSecret, stepOfCode } from '@/server/identity/second-factor';

describe('a time-based code', () => {
  // RFC 6238, appendix B, SHA-1, the last six of its eight digits.
  const secret = new Secret({ buffer: new TextEncoder().encode('12345678901234567890').buffer })
    .base32;
  test.each([
    [59, '287082'],
    [1_111_111_109, '081804'],
    [1_234_567_890, '005924'],
    [2_000_000_000, '279037'],
  ])('at %i s is %s', (seconds, code) => {
    expect(stepOfCode(secret, code, seconds * 1000, null)).toBe(Math.floor(seconds / 30));
  });

  test('holds one step either side, and works once', () => {
    expect(stepOfCode(secret, '287082', 89_000, null)).toBe(1);
    expect(stepOfCode(secret, '287082', 121_000, null)).toBeNull();
    expect(stepOfCode(secret, '287082', 59_000, 1)).toBeNull();
    expect(stepOfCode(secret, '000000', 59_000, null)).toBeNull();
  });

  test('new secrets have 160 bits and an address that apps read', () => {
    const fresh = newFactorSecret((length) => new Uint8Array(randomBytes(length)));
    expect(fresh).toMatch(/^[A-Z2-7]{32}$/);
    expect(factorAddress(fresh, 'ida@tern-quill.example')).toMatch(
      /^otpauth:\/\/totp\/Embargo:ida/,
    );
  });
});

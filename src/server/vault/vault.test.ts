import { randomBytes } from 'node:crypto';
import { describe, expect, test } from 'vitest';
import { MINUTE } from '@/core/base/time';
import { Secret } from '@/core/base/secret';
import { createKeyring } from '@/server/vault/keyring';
import type { MasterKeys } from '@/server/vault/master-key';
import { createHashes, createKeyWrap } from '@/server/vault/vault';

const newSecret = () => new Secret(new Uint8Array(randomBytes(32)));
const newVault = () => {
  const only = { generation: 1, key: newSecret() };
  const keys: MasterKeys = {
    current: () => only,
    find: (generation) => (generation === 1 ? only : null),
  };
  return { ...createKeyWrap(keys), ...createHashes(newSecret()) };
};

describe('the vault', () => {
  const vault = newVault();
  const key = new Uint8Array(randomBytes(16));

  test('gives a key back to its owner alone', () => {
    const wrapped = vault.wrap(key, 'ver_1');
    expect(vault.unwrap(wrapped, 'ver_1')).toEqual(key);
    expect(wrapped.wrapped.includes(Buffer.from(key))).toBe(false);
    expect(() => vault.unwrap(wrapped, 'ver_2')).toThrow(
      expect.objectContaining({ code: 'CANNOT_UNWRAP' }) as Error,
    );
    expect(() => vault.unwrap({ ...wrapped, generation: 2 }, 'ver_1')).toThrow(
      'could not be opened',
    );
    expect(() => newVault().unwrap(wrapped, 'ver_1')).toThrow('could not be opened');
  });

  test('notices any altered or missing byte', () => {
    const { wrapped, generation } = vault.wrap(key, 'ver_1');
    for (let i = 0; i < wrapped.length; i++) {
      const altered = Buffer.from(wrapped);
      altered[i] = (altered[i] ?? 0) ^ 1;
      expect(() => vault.unwrap({ wrapped: altered, generation }, 'ver_1')).toThrow(
        'could not be opened',
      );
    }
    for (const length of [0, 12, 27, wrapped.length - 1])
      expect(() =>
        vault.unwrap({ wrapped: wrapped.subarray(0, length), generation }, 'ver_1'),
      ).toThrow('could not be opened');
  });

  test('never wraps alike twice, and hashes differ by purpose', () => {
    expect(vault.wrap(key, 'ver_1').wrapped.equals(vault.wrap(key, 'ver_1').wrapped)).toBe(false);
    expect(vault.mac('code', '123456')).toBe(vault.mac('code', '123456'));
    expect(
      new Set([
        vault.mac('code', '123456'),
        vault.mac('device', '123456'),
        newVault().mac('code', '123456'),
      ]).size,
    ).toBe(3);
  });
});

describe('the keyring', () => {
  test('holds a key while it is used, and not for long after', () => {
    let now = 0;
    const ring = createKeyring(() => now);
    ring.hold('lic_1', Uint8Array.of(1));
    for (let i = 0; i < 5; i++) {
      now += 10 * MINUTE;
      expect(ring.find('lic_1')).toEqual(Uint8Array.of(1));
    }
    now += 16 * MINUTE;
    expect(ring.find('lic_1')).toBeNull();
    expect(ring.find('lic_1')).toBeNull();
  });

  test('forgets everything at once, and the oldest where there are too many', () => {
    const ring = createKeyring(() => 0);
    for (let i = 0; i < 5_001; i++) ring.hold(`lic_${String(i)}`, Uint8Array.of(1));
    expect(ring.find('lic_0')).toBeNull();
    expect(ring.find('lic_1')).not.toBeNull();
    ring.clear();
    expect(ring.find('lic_1')).toBeNull();
  });
});

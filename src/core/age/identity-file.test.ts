import { execFileSync } from 'node:child_process';
import { describe, expect, test } from 'vitest';
import { utf8 } from '@/core/base/bytes';
import { isLocked, lockIdentity, openIdentity } from '@/core/age/identity-file';

const KEY = 'AGE-SECRET-KEY-1QQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQQ';
const TEXT = `# created: today\n# public key: age1…\n${KEY}\n`;
/** A cost that a test can pay. */
const CHEAP = 8;
const saying =
  (...passphrases: string[]) =>
  (layer: number): Promise<string> =>
    Promise.resolve(passphrases[layer] ?? '');

describe('a recovery key’s file', () => {
  test('in the clear needs no passphrase, and remarks are passed over', async () => {
    expect(isLocked(utf8(TEXT))).toBe(false);
    expect(await openIdentity(utf8(`\r\n${TEXT.replaceAll('\n', '\r\n')}`), saying())).toBe(KEY);
  });

  test('under one passphrase, and under two people’s, the last to be set first', async () => {
    const one = await lockIdentity(TEXT, ['alone'], CHEAP);
    expect([one.split('\n')[0], isLocked(utf8(one))]).toEqual([
      '-----BEGIN AGE ENCRYPTED FILE-----',
      true,
    ]);
    expect(await openIdentity(utf8(one), saying('alone'))).toBe(KEY);
    const two = await lockIdentity(TEXT, ['second', 'first'], CHEAP);
    expect(await openIdentity(utf8(two), saying('first', 'second'))).toBe(KEY);
    await expect(openIdentity(utf8(two), saying('second', 'first'))).rejects.toMatchObject({
      code: 'WRONG_PASSPHRASE',
    });
    await expect(openIdentity(utf8(two), saying('first'))).rejects.toMatchObject({
      code: 'WRONG_PASSPHRASE',
    });
  });

  test.each(['', 'Dear all', '-----BEGIN AGE ENCRYPTED FILE-----\nAAAA', '# only a remark\n'])(
    '%j holds no key',
    async (text) => {
      await expect(openIdentity(utf8(text), saying('x'))).rejects.toMatchObject({
        code: 'NO_IDENTITY',
      });
    },
  );

  test('locked more often than people would, it is not opened without end', async () => {
    const deep = await lockIdentity(TEXT, ['1', '2', '3', '4', '5'], CHEAP);
    await expect(openIdentity(utf8(deep), saying('5', '4', '3', '2', '1'))).rejects.toMatchObject({
      code: 'NO_IDENTITY',
    });
  });

  test('Debian’s age knows it for what it is', async () => {
    const locked = await lockIdentity(TEXT, ['alone'], CHEAP);
    // Without a terminal it cannot ask; that it wants to is what tells.
    expect(() =>
      execFileSync('age', ['-d'], { input: locked, stdio: ['pipe', 'pipe', 'pipe'] }),
    ).toThrow(/passphrase|terminal|standard input/i);
  });
});

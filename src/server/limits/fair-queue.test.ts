import { describe, expect, test } from 'vitest';
import { createFairQueue } from '@/server/limits/fair-queue';
import { createLimits, networkKey } from '@/server/limits/limits';

const BOUNDS = { atOnce: 2, atOnceEach: 1, waiting: 50, waitingEach: 40 };

/** A job that ends when it is told to. */
function held() {
  let end: () => void = () => undefined;
  const done = new Promise<void>((resolve) => {
    end = resolve;
  });
  return { job: () => done, end };
}
const soon = () =>
  new Promise((resolve) => {
    setTimeout(resolve, 1);
  });

describe('a fair queue', () => {
  test('lets nobody have every place, and serves everybody in turn', async () => {
    const queue = createFairQueue(BOUNDS);
    const order: string[] = [];
    const greedy = Array.from({ length: 30 }, (_, i) =>
      queue('greedy', async () => {
        order.push(`greedy ${String(i)}`);
        await soon();
      }),
    );
    const other = queue('other', () => {
      order.push('other');
      return Promise.resolve();
    });
    await Promise.all([...greedy, other]);
    expect(order.indexOf('other')).toBeLessThan(3);
    expect(order.filter((each) => each !== 'other')).toEqual(
      Array.from({ length: 30 }, (_, i) => `greedy ${String(i)}`),
    );
  });

  test('turns away what is too much, for one and for all, and goes on afterwards', async () => {
    const queue = createFairQueue({ atOnce: 1, atOnceEach: 1, waiting: 3, waitingEach: 2 });
    const first = held();
    const running = queue('a', first.job);
    const waiting = [
      queue('a', () => Promise.resolve('second')),
      queue('a', () => Promise.resolve('third')),
    ];
    await expect(queue('a', () => Promise.resolve())).rejects.toMatchObject({ code: 'BUSY' });
    waiting.push(queue('b', () => Promise.resolve('b')));
    await expect(queue('c', () => Promise.resolve())).rejects.toMatchObject({ code: 'BUSY' });
    first.end();
    await running;
    expect(await Promise.all(waiting)).toEqual(['second', 'third', 'b']);
    await expect(queue('c', () => Promise.resolve('c'))).resolves.toBe('c');
  });

  test('does not begin what nobody waits for any more, and frees its place', async () => {
    const queue = createFairQueue({ atOnce: 1, atOnceEach: 1, waiting: 2, waitingEach: 1 });
    const first = held();
    const running = queue('a', first.job);
    const stop = new AbortController();
    let begun = false;
    const given = queue(
      'b',
      () => {
        begun = true;
        return Promise.resolve();
      },
      stop.signal,
    );
    stop.abort(new Error('gone'));
    await expect(given).rejects.toThrow('gone');
    const after = queue('b', () => Promise.resolve('after'));
    first.end();
    await running;
    expect(await after).toBe('after');
    expect(begun).toBe(false);
    await expect(
      queue('c', () => Promise.resolve(), AbortSignal.abort(new Error('gone'))),
    ).rejects.toThrow('gone');
  });

  test('a job that fails fails alone', async () => {
    const queue = createFairQueue(BOUNDS);
    await expect(queue('a', () => Promise.reject(new Error('broken')))).rejects.toThrow('broken');
    await expect(queue('a', () => Promise.resolve(1))).resolves.toBe(1);
  });
});

describe('limits', () => {
  test.each([
    ['203.0.113.9', '203.0.113.9'],
    ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2'],
    ['2001:db8:1:2::9', '2001:db8:1:2'],
    ['2001:db8::9', '2001:db8:0:0'],
    ['::1', '0:0:0:0'],
    ['2001:0db8:0001:0002::', '2001:db8:1:2'],
    ['unknown', 'unknown'],
  ])('%s counts under %s', (network, key) => {
    expect(networkKey(network)).toBe(key);
  });

  test('addresses tried count once each, listed or not', async () => {
    const { addressesByLink } = createLimits();
    for (let round = 0; round < 3; round++)
      for (let i = 0; i < 8; i++)
        expect(await addressesByLink('link', `a${String(i)}@x.example`)).toBe(0);
    expect(await addressesByLink('link', 'a9@x.example')).toBeGreaterThan(0);
    expect(await addressesByLink('link', 'a3@x.example')).toBe(0);
    expect(await addressesByLink('other', 'a9@x.example')).toBe(0);
  });
});

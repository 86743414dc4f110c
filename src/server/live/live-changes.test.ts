import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { createLiveChanges } from '@/server/live/live-changes';

describe('live changes', () => {
  let last = 10;
  let names: (string | null)[][] = [];
  let looks = 0;
  const errors: unknown[] = [];
  const live = createLiveChanges(
    () => {
      looks++;
      return Promise.resolve(last);
    },
    () => Promise.resolve(names),
    (error) => {
      errors.push(error);
    },
  );

  beforeEach(() => {
    vi.useFakeTimers();
  });
  afterEach(() => {
    live.close();
    vi.useRealTimers();
  });

  test('tell anyone who watches one of the names, once a look, and nobody else', async () => {
    const [ours, others] = [vi.fn(), vi.fn()];
    live.watch(['grt_1', 'doc_1'], 'a', ours);
    live.watch(['grt_2', 'doc_2'], 'b', others);
    await vi.advanceTimersByTimeAsync(500);
    expect(ours).not.toHaveBeenCalled();
    last = 12;
    names = [
      ['grt_1', 'doc_9', null],
      ['grt_1', 'doc_1', 'rcp_1'],
    ];
    await vi.advanceTimersByTimeAsync(500);
    expect(ours).toHaveBeenCalled();
    expect(others).not.toHaveBeenCalled();
    ours.mockClear();
    await vi.advanceTimersByTimeAsync(2000);
    expect(ours).not.toHaveBeenCalled();
  });

  test('reach everybody, also where telling one of them fails', async () => {
    const others = [vi.fn(), vi.fn()];
    live.watch(['rcp_7'], 'a', others[0] ?? vi.fn());
    live.watch(['rcp_7'], 'b', () => {
      throw new TypeError('closed');
    });
    live.watch(['rcp_7'], 'c', others[1] ?? vi.fn());
    await vi.advanceTimersByTimeAsync(500);
    last++;
    names = [[null, 'doc_1', 'rcp_7']];
    await vi.advanceTimersByTimeAsync(500);
    for (const other of others) expect(other).toHaveBeenCalledTimes(1);
    expect(errors.splice(0)).toMatchObject([{ message: 'closed' }]);
    live.touch();
    for (const other of others) expect(other).toHaveBeenCalledTimes(2);
    errors.splice(0);
  });

  test('are not looked for while nobody watches', async () => {
    const end = live.watch(['grt_1'], 'a', () => undefined);
    await vi.advanceTimersByTimeAsync(1000);
    end();
    await vi.advanceTimersByTimeAsync(1000);
    const before = looks;
    await vi.advanceTimersByTimeAsync(5000);
    expect(looks).toBe(before);
  });

  test('go on after a look that failed, and say that it did', async () => {
    const listener = vi.fn();
    const failing = createLiveChanges(
      () => (looks++ % 2 === 0 ? Promise.reject(new Error('busy')) : Promise.resolve((last += 1))),
      () => Promise.resolve([['grt_3']]),
      (error) => {
        errors.push(error);
      },
    );
    failing.watch(['grt_3'], 'a', listener);
    await vi.advanceTimersByTimeAsync(4000);
    expect(errors.length).toBeGreaterThan(0);
    expect(listener).toHaveBeenCalled();
    failing.close();
  });

  test('lets one person watch so much and no more, and others still', () => {
    const live = createLiveChanges(
      () => Promise.resolve(0),
      () => Promise.resolve([]),
      () => undefined,
    );
    const ends = Array.from({ length: 24 }, () => live.watch(['grt_1'], 'a', () => undefined));
    expect(() => live.watch(['grt_1'], 'a', () => undefined)).toThrow('at once');
    expect(() => live.watch(['grt_1'], 'b', () => undefined)).not.toThrow();
    ends[0]?.();
    ends[0]?.();
    expect(() => live.watch(['grt_1'], 'a', () => undefined)).not.toThrow();
    expect(() => live.watch(['grt_1'], 'a', () => undefined)).toThrow('at once');
    live.close();
  });
});

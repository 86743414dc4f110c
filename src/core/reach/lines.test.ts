import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { reachLines, reachSpan, type ReachGrant, type ReachMark } from '@/core/reach/lines';

const grant = (over: Partial<ReachGrant> = {}): ReachGrant => ({
  id: 'grt_1',
  recipientId: 'rcp_1',
  from: null,
  until: 100,
  givenAt: 10,
  revokedAt: null,
  ...over,
});
const lineOf = (...grants: ReachGrant[]) => reachLines(grants, []).at(0);

describe('a line', () => {
  test.each([
    ['runs from the giving to the end', {}, [{ from: 10, until: 100, kind: 'live' }]],
    ['without an end runs on', { until: null }, [{ from: 10, until: null, kind: 'live' }]],
    [
      'waits until its window opens',
      { from: 40 },
      [
        { from: 10, until: 40, kind: 'waiting' },
        { from: 40, until: 100, kind: 'live' },
      ],
    ],
    [
      'whose window opened before it was given begins when it was given',
      { from: 5 },
      [{ from: 10, until: 100, kind: 'live' }],
    ],
    ['is cut where it was revoked', { revokedAt: 60 }, [{ from: 10, until: 60, kind: 'cut' }]],
    [
      'revoked after its end was over by then',
      { revokedAt: 200 },
      [{ from: 10, until: 100, kind: 'live' }],
    ],
    [
      'revoked while it waited was never open',
      { from: 40, revokedAt: 20 },
      [{ from: 10, until: 20, kind: 'waiting' }],
    ],
    ['revoked at once has no length', { revokedAt: 10 }, []],
    [
      'that a device holds is drawn over with how long it reads on without asking',
      { offline: { from: 20, until: 30 } },
      [
        { from: 10, until: 100, kind: 'live' },
        { from: 20, until: 30, kind: 'offline' },
      ],
    ],
    [
      'revoked while a device holds it has a tail beyond the cut',
      { revokedAt: 25, offline: { from: 20, until: 60 } },
      [
        { from: 10, until: 25, kind: 'cut' },
        { from: 20, until: 60, kind: 'offline' },
      ],
    ],
  ])('%s', (_name, over, stretches) => {
    expect(lineOf(grant(over))?.stretches).toEqual(stretches);
  });

  test('of several grants ends with the last of those that stand', () => {
    expect(
      lineOf(
        grant({ until: 50 }),
        grant({ id: 'grt_2', until: 80 }),
        grant({ id: 'grt_3', until: 900, revokedAt: 20 }),
      ),
    ).toMatchObject({ end: 80, revokedAt: null, grants: ['grt_1', 'grt_2', 'grt_3'] });
    expect(lineOf(grant({ until: 50 }), grant({ id: 'grt_2', until: null }))?.end).toBeNull();
    expect(lineOf(grant({ revokedAt: 20 }), grant({ id: 'grt_2', revokedAt: 30 }))).toMatchObject({
      end: 100,
      revokedAt: 30,
    });
  });

  test('holds its own marks only, in the order of time', () => {
    const marks: ReachMark[] = [
      { recipientId: 'rcp_1', at: 30, kind: 'opened' },
      { recipientId: 'rcp_2', at: 1, kind: 'refused' },
      { recipientId: 'rcp_1', at: 20, kind: 'refused' },
    ];
    expect(
      reachLines([grant(), grant({ id: 'grt_2', recipientId: 'rcp_2' })], marks).map((line) =>
        line.marks.map(({ at }) => at),
      ),
    ).toEqual([[20, 30], [1]]);
  });
});

const moments = fc.integer({ min: 0, max: 1000 });
const anyGrant = fc.record({
  id: fc.constantFrom<ReachGrant['id'][]>('grt_1', 'grt_2'),
  recipientId: fc.constantFrom<ReachGrant['recipientId'][]>('rcp_1', 'rcp_2', 'rcp_3'),
  from: fc.option(moments),
  until: fc.option(moments),
  givenAt: moments,
  revokedAt: fc.option(moments),
});

prop.prop([fc.array(anyGrant, { maxLength: 12 }), moments])(
  'every stretch runs forward and lies inside the span, with now',
  (grants, now) => {
    const lines = reachLines(grants, []);
    const [first, last] = reachSpan(lines, now);
    expect(first).toBeLessThan(now);
    expect(last).toBeGreaterThan(now);
    for (const { from, until } of lines.flatMap((line) => line.stretches)) {
      expect(from).toBeGreaterThanOrEqual(first);
      expect(until ?? from).toBeGreaterThanOrEqual(from);
      expect(until ?? from).toBeLessThanOrEqual(last);
    }
  },
);

prop.prop([anyGrant, moments])(
  'is live at a moment exactly where the window is open and nothing was revoked by then',
  (one, moment) => {
    const open =
      moment >= Math.max(one.givenAt, one.from ?? 0) &&
      (one.until === null || moment < one.until) &&
      (one.revokedAt === null || moment < one.revokedAt);
    const drawn = (reachLines([one], []).at(0)?.stretches ?? []).some(
      ({ from, until, kind }) =>
        kind !== 'waiting' && moment >= from && (until === null || moment < until),
    );
    expect(drawn).toBe(open);
  },
);

import { describe, expect, it } from 'vitest';
import { DAY } from '@/core/base/time';
import {
  NO_SENDER_LIMITS,
  beyondLimits,
  beyondLines,
  limitsSender,
  termsWithin,
  type Giving,
  type SenderLimits,
} from '@/core/policy/sender-limits';

const NOW = 1_800_000_000_000;
const parents = new Map<string, string | null>([
  ['fld_hull', null],
  ['fld_tender', 'fld_hull'],
  ['fld_office', null],
  ['a', 'b'],
  ['b', 'a'],
]);
const giving = (over: Partial<Giving> = {}): Giving => ({
  addresses: ['mira@yard.example'],
  documents: [{ title: 'Lines', folderId: 'fld_tender' }],
  terms: [{ rights: ['read'], until: NOW + 5 * DAY }],
  givenAt: NOW,
  ...over,
});
const beyond = (limits: Partial<SenderLimits>, over: Partial<Giving> = {}) =>
  beyondLines(beyondLimits({ ...NO_SENDER_LIMITS, ...limits }, giving(over), parents));

describe('a sender’s limits', () => {
  it('let everything through that they do not limit', () => {
    expect(limitsSender(NO_SENDER_LIMITS)).toBe(false);
    expect(beyond({})).toEqual([]);
    expect(
      beyond({
        domains: ['@yard.example'],
        folders: ['fld_hull'],
        rights: ['read', 'print'],
        days: 5,
      }),
    ).toEqual([]);
  });

  it('name everybody who is elsewhere, and whatever is of no domain', () => {
    expect(
      beyond(
        { domains: ['@yard.example'] },
        {
          addresses: [
            'mira@yard.example',
            'x@sub.yard.example',
            '@other.example',
            'group:grp_1',
            '@yard.example',
          ],
        },
      ),
    ).toEqual(['You may not send to x@sub.yard.example, @other.example, group:grp_1.']);
    expect(
      beyond(
        { domains: [] },
        { addresses: ['a@x.example', 'b@x.example', 'c@x.example', 'd@x.example', 'e@x.example'] },
      ),
    ).toEqual(['You may not send to a@x.example, b@x.example, c@x.example and 2 more.']);
  });

  it('reach to whom something may be passed on', () => {
    const passing = (domains: readonly string[] | null) => ({
      terms: [
        {
          rights: ['read' as const, 'pass-on' as const],
          until: NOW,
          conditions: { passOn: { people: 1, domains, steps: 1 } },
        },
      ],
    });
    expect(beyond({ domains: ['@yard.example'] }, passing(null))).toEqual([
      expect.stringContaining('anyone they pass it on to'),
    ]);
    expect(beyond({ domains: ['@yard.example'] }, passing(['@other.example']))).toHaveLength(1);
    expect(beyond({ domains: ['@yard.example'] }, passing(['@yard.example']))).toEqual([]);
    expect(beyond({}, passing(null))).toEqual([]);
  });

  it('reach folders below the ones that are named, and nothing beside them', () => {
    expect(
      beyond(
        { folders: ['fld_tender'] },
        {
          documents: [
            { title: 'Lines', folderId: 'fld_tender' },
            { title: 'Accounts', folderId: 'fld_office' },
            { title: 'Loose', folderId: null },
          ],
        },
      ),
    ).toEqual(['You may not send “Accounts”, “Loose” from where they sit.']);
    expect(
      beyond({ folders: ['fld_office'] }, { documents: [{ title: 'Round', folderId: 'a' }] }),
    ).toEqual(['You may not send “Round” from where it sits.']);
  });

  it('bound rights and time, of whichever person, and no end is beyond any', () => {
    expect(
      beyond(
        { rights: ['read'] },
        {
          terms: [
            { rights: ['read'], until: NOW },
            { rights: ['read', 'print', 'keep'], until: NOW },
          ],
        },
      ),
    ).toEqual(['You may not give these rights: print, keep.']);
    expect(beyond({ days: 4 })).toEqual(['You may give access for 4 days at most.']);
    expect(beyond({ days: 90 }, { terms: [{ rights: ['read'], until: null }] })).toEqual([
      'You may give access for 90 days at most.',
    ]);
  });
});

describe('terms within a sender’s limits', () => {
  const terms = {
    rights: ['read', 'copy', 'print', 'keep'] as const,
    from: null,
    until: null,
    prints: null,
  };
  const within = (limits: Partial<SenderLimits>) =>
    termsWithin(terms, { ...NO_SENDER_LIMITS, ...limits }, NOW + 1_234);

  it('stay as they are where nothing limits them', () => {
    expect(within({})).toEqual(terms);
  });

  it('lose what may not be given, and what cannot stand without it', () => {
    expect(within({ rights: ['read', 'print', 'keep'] }).rights).toEqual(['read', 'print']);
  });

  it('end in time, and are then not beyond the limits', () => {
    const limits = { ...NO_SENDER_LIMITS, days: 5 };
    const { until } = within({ days: 5 });
    expect(until).toBeLessThanOrEqual(NOW + 1_234 + 5 * DAY);
    const given = {
      ...giving(),
      terms: [{ rights: ['read' as const], until }],
      givenAt: NOW + 1_234,
    };
    expect(beyondLimits(limits, given, parents).days).toBeNull();
  });
});

import { holdsLayers, newLayer } from '@/core/watermark/layers';
import { fc, test } from '@fast-check/vitest';
import { describe, expect, it } from 'vitest';
import {
  NO_DEFAULTS,
  commonDefaults,
  resolveDefaults,
  watermarkUnder,
  type LevelDefaults,
} from '@/core/policy/defaults';
import { LEVELS, reaching } from '@/core/policy/levels';
import { brokenDependencies, RIGHTS } from '@/core/policy/rights';

const level = (
  at: LevelDefaults['level'],
  set: Partial<LevelDefaults['defaults']>,
  line = '',
  subject = at === 'organisation' ? '' : `a ${at}`,
): LevelDefaults => ({
  level: at,
  subject,
  defaults: { ...NO_DEFAULTS, ...set },
  watermark: line === '' ? [] : [newLayer('tiled', line)],
  setBy: 'stf_a',
  setAt: 0,
});

const anyLevel = fc.record({
  level: fc.constantFrom(...LEVELS),
  subject: fc.constant(''),
  watermark: fc.constantFrom(
    [],
    [newLayer('header', 'Not to be copied')],
    [newLayer('tiled', '{name}')],
  ),
  setBy: fc.constant('stf_a'),
  setAt: fc.constant(0),
  defaults: fc.record({
    rights: fc.option(
      fc
        .subarray([...RIGHTS])
        .map((rights) => ['read' as const, ...rights.filter((right) => right !== 'read')]),
    ),
    days: fc.oneof(
      fc.constant(null),
      fc.constant('no-end' as const),
      fc.integer({ min: 1, max: 400 }),
    ),
    prints: fc.option(fc.integer({ min: 1, max: 9 })),
  }),
});

describe('what a dispatch begins with', () => {
  it('is cautious where nobody set anything', () => {
    expect(resolveDefaults([])).toMatchObject({
      terms: { rights: ['read'], days: 30, prints: null },
      origins: { rights: null, days: null, prints: null },
    });
  });

  it('is of each value what the nearest level says, which is named', () => {
    const office = level('organisation', { rights: ['read', 'print'], days: 90, prints: 5 });
    const folder = level('folder', { days: 7 });
    const found = resolveDefaults([office, folder]);
    expect(found.terms).toMatchObject({ rights: ['read', 'print'], days: 7, prints: 5 });
    expect(found.origins).toEqual({ rights: office, days: folder, prints: office });
  });

  it('can be without an end, where a level says so', () => {
    expect(
      resolveDefaults([level('organisation', { days: 3 }), level('document', { days: 'no-end' })])
        .terms.days,
    ).toBeNull();
  });

  it('of several documents is what they have in common, by whom it was set', () => {
    const drawings = level('folder', { rights: ['read', 'copy', 'print'], days: 30 });
    const tender = level(
      'folder',
      { rights: ['read', 'print'], days: 10, prints: 2 },
      '',
      'tender',
    );
    const found = commonDefaults([resolveDefaults([drawings]), resolveDefaults([tender])]);
    expect(found.terms).toMatchObject({ rights: ['read', 'print'], days: 10, prints: 2 });
    expect(found.origins).toEqual({ rights: tender, days: tender, prints: tender });
  });

  test.prop([fc.array(fc.array(anyLevel, { maxLength: 4 }), { minLength: 1, maxLength: 4 })])(
    'can always stand, and gives no document more than its own',
    (documents) => {
      const own = documents.map((rules) => resolveDefaults(rules));
      const { terms } = commonDefaults(own);
      expect(brokenDependencies({ ...terms, from: null, until: null })).toEqual([]);
      for (const each of own) {
        expect(each.terms.rights).toEqual(expect.arrayContaining([...terms.rights]));
        expect(terms.days ?? Infinity).toBeLessThanOrEqual(each.terms.days ?? Infinity);
      }
    },
  );
});

describe('what stands on every page', () => {
  it('is what every level asks for, outermost first, and each once', () => {
    expect(
      watermarkUnder(
        [newLayer('tiled', '{name}')],
        [
          level('organisation', {}, 'Tern & Quill'),
          level('folder', {}, 'Hull 412'),
          level('document', {}, 'Hull 412'),
        ],
      ),
    ).toEqual(['Tern & Quill', 'Hull 412', '{name}'].map((line) => newLayer('tiled', line)));
    expect(watermarkUnder([], [])).toEqual([]);
  });

  test.prop([fc.string(), fc.array(anyLevel), anyLevel])(
    'never loses anything by a further level',
    (line, rules, more) => {
      const own = [newLayer('footer', line)];
      const all = watermarkUnder(own, [...rules, more]);
      for (const watermark of [own, ...rules.map((rule) => rule.watermark)])
        expect(holdsLayers(all, watermark)).toBe(true);
    },
  );
});

describe('rules that reach a document', () => {
  it('come from the outermost in, folders by where they lie', () => {
    const parents = new Map([
      ['inner', 'middle'],
      ['middle', 'outer'],
      ['outer', null],
      ['elsewhere', null],
    ]);
    const rules = [
      level('document', {}, '', 'd'),
      level('folder', {}, '', 'inner'),
      level('folder', {}, '', 'outer'),
      level('folder', {}, '', 'elsewhere'),
      level('folder', {}, '', 'middle'),
      level('marking', {}, '', 'm'),
      level('marking', {}, '', 'n'),
      level('organisation', {}),
    ];
    expect(
      reaching({ document: 'd', marking: 'm', folder: 'inner' }, rules, parents).map(
        ({ subject }) => subject,
      ),
    ).toEqual(['', 'm', 'outer', 'middle', 'inner', 'd']);
  });

  it('end where folders run in a circle', () => {
    expect(
      reaching(
        { document: 'd', marking: null, folder: 'a' },
        [level('folder', {}, '', 'b')],
        new Map([
          ['a', 'b'],
          ['b', 'a'],
        ]),
      ),
    ).toHaveLength(1);
  });
});

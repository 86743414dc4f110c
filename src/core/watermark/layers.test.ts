import { describe, expect, test } from 'vitest';
import {
  DEFAULT_WATERMARK,
  fillLayers,
  holdsLayers,
  isSameWatermark,
  joinWatermarks,
  layersOn,
  linesOf,
  newLayer,
  paperLayers,
} from '@/core/watermark/layers';
import {
  asDrawn,
  fillPieces,
  lineOf,
  partsOf,
  tidyLine,
  unknownPieces,
  attributePiece,
} from '@/core/watermark/pieces';
import { readWatermark, watermarkProblem } from '@/core/watermark/read-layers';

const values = { name: 'Mira', organisation: 'Brackwater Yard', attributes: { Lot: '2' } };

describe('pieces', () => {
  test('are filled in; unknown ones are named', () => {
    expect(fillPieces('{name} of {organisation}', values)).toBe('Mira of Brackwater Yard');
    expect(fillPieces(`{${attributePiece('Lot')}}`, values)).toBe('2');
    expect(fillPieces('{attribute:Other}', values)).toBe('');
    expect(unknownPieces('{name} {moon} {attribute:Lot} {sun}')).toEqual(['moon', 'sun']);
  });

  test('of what a piece is filled with none is filled in, not even later', () => {
    const once = fillPieces('{name} · {copy}', { name: '{copy}{page}' });
    expect(fillPieces(once, { copy: '7', page: '3' })).toBe('(copy)(page) · 7');
  });

  test.each(['{name} of {organisation}', 'plain', '', '{copy}', 'a {attribute:Lot No.} b'])(
    'and words come apart and together again: %s',
    (line) => {
      expect(lineOf(partsOf(line))).toBe(line);
    },
  );

  test.each([
    ['Copy {copy} · uncontrolled once printed', 'uncontrolled once printed'],
    ['{name} ·  · {reference}', ''],
    ['  Tender ·   for  bidders ', 'Tender · for bidders'],
    ['page {page}', ''],
  ])('that nobody filled in leave no trace: %s', (line, drawn) => {
    expect(asDrawn(line)).toBe(drawn);
  });
});

test.each([
  ['Round 2 ·  · {reference} · ', 'Round 2 · {reference}'],
  [' · ', ''],
  ['{name}', '{name}'],
])('a line is left without loose ends: %s', (line, tidy) => {
  expect(tidyLine(line)).toBe(tidy);
});

describe('layers of several levels', () => {
  const [header, footer] = [newLayer('header', 'Tender'), newLayer('footer', '{name}')];

  test('stand together, each once', () => {
    expect(joinWatermarks([[header], [footer, header], [footer]])).toEqual([header, footer]);
    expect(holdsLayers([footer, header], [header])).toBe(true);
    expect(holdsLayers([footer], [{ ...footer, strength: 30 }])).toBe(false);
    expect(isSameWatermark([header, footer], [footer, header])).toBe(true);
    expect(isSameWatermark([header, footer], [footer])).toBe(false);
  });

  test('are told in each layer’s own zone', () => {
    const zoned = { ...newLayer('tiled', '{time}'), zone: 'Asia/Tokyo' };
    const filled = fillLayers([zoned, newLayer('tiled', '{time}')], (zone) => ({
      time: zone ?? 'at home',
    }));
    expect(filled.map(({ line }) => line)).toEqual(['Asia/Tokyo', 'at home']);
  });

  test('are drawn where they are for', () => {
    const paper = { ...header, on: 'paper' as const };
    expect(layersOn([paper, footer], 'screen')).toEqual([footer]);
    expect(layersOn([paper, footer], 'paper')).toEqual([paper, footer]);
  });

  test('say the number of a copy on paper, whether somebody asked for it or not', () => {
    expect(paperLayers(DEFAULT_WATERMARK)).toEqual(layersOn(DEFAULT_WATERMARK, 'paper'));
    expect(linesOf(paperLayers([]))).toContain('{copy}');
    expect(linesOf(paperLayers([{ ...footer, line: '{copy}', on: 'screen' }]))).toContain(
      'copy {copy}',
    );
  });
});

describe('what comes from outside', () => {
  const layer = newLayer('tiled', '{name}');

  test('is a watermark where every layer is within its limits', () => {
    expect(readWatermark(DEFAULT_WATERMARK)).toEqual(DEFAULT_WATERMARK);
    expect(readWatermark([])).toEqual([]);
  });

  test.each<[string, unknown, RegExp]>([
    ['a text', '{name}', /list of layers/],
    ['a hole', [null], /is an object/],
    ['too many', Array.from({ length: 7 }, () => layer), /at most 6 layers/],
    ['an empty line', [{ ...layer, line: ' ' }], /says nothing/],
    ['a long line', [{ ...layer, line: 'x'.repeat(241) }], /at most 240/],
    ['an unknown piece', [{ ...layer, line: '{password}' }], /\{password\} is not a piece/],
    ['an unknown place', [{ ...layer, place: 'behind' }], /place of a layer/],
    ['one that hides the page', [{ ...layer, strength: 100 }], /from 12 to 40/],
    ['one that cannot be seen', [{ ...layer, strength: 1 }], /from 12 to 40/],
    ['half a step', [{ ...layer, size: 20.5 }], /whole number/],
    ['a zone that is none', [{ ...layer, zone: 'Moon/Sea' }], /time zone/],
    ['a banner on screens', [{ ...layer, place: 'banner' }], /for paper/],
    ['something else', [{ ...layer, script: 'x' }], /no “script”/],
  ])('%s is none, and why is said', (_what, value, why) => {
    expect(watermarkProblem(value)).toMatch(why);
    expect(readWatermark(value)).toBeNull();
  });
});

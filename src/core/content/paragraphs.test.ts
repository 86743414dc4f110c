import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { paragraphsOf } from '@/core/content/paragraphs';

const line = (text: string, top: number, { left = 100, height = 100, width = 2_000 } = {}) => ({
  text,
  left,
  top,
  width,
  height,
});

describe('the text of a page', () => {
  test('is put together from lines, and apart where there is room or a heading', () => {
    expect(
      paragraphsOf([
        line('Berth study', 100, { height: 180 }),
        line('The quay is two hundred', 400),
        line('metres long.', 520),
        line('It has nine bollards.', 900),
      ]),
    ).toEqual(['Berth study', 'The quay is two hundred metres long.', 'It has nine bollards.']);
  });

  test('joins pieces of one line, with a space only where there is one', () => {
    expect(
      paragraphsOf([
        line('Mast', 100, { width: 400 }),
        line('as', 102, { left: 540, width: 150 }),
        line('drawn', 100, { left: 690 }),
      ]),
    ).toEqual(['Mast asdrawn']);
  });

  test('begins anew at the top of the next column', () => {
    expect(
      paragraphsOf([line('left, last', 5_000), line('right, first', 300, { left: 5_000 })]),
    ).toEqual(['left, last', 'right, first']);
  });

  test('puts no space into scripts that have none', () => {
    expect(paragraphsOf([line('岸壁の長さは', 100), line('二百メートルです。', 220)])).toEqual([
      '岸壁の長さは二百メートルです。',
    ]);
  });

  const piece = fc.record({
    text: fc.string({ maxLength: 12 }),
    left: fc.integer({ min: 0, max: 10_000 }),
    top: fc.integer({ min: 0, max: 10_000 }),
    width: fc.integer({ min: 0, max: 5_000 }),
    height: fc.integer({ min: 0, max: 400 }),
  });
  prop.prop([fc.array(piece, { maxLength: 40 })])('loses and adds no letter', (pieces) => {
    const letters = (text: string): string => text.replaceAll(/\s/g, '');
    expect(letters(paragraphsOf(pieces).join(''))).toBe(
      letters(pieces.map(({ text }) => text).join('')),
    );
  });
});

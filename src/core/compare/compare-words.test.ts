import { fc, test as prop } from '@fast-check/vitest';
import { expect, test } from 'vitest';
import { compareWords } from '@/core/compare/compare-words';

test('what was changed is told word by word', () => {
  expect(compareWords('Frame spacing 600 mm, steel', 'Frame spacing 650 mm, steel')).toEqual([
    { text: 'Frame spacing ', change: 'same' },
    { text: '600', change: 'removed' },
    { text: '650', change: 'added' },
    { text: ' mm, steel', change: 'same' },
  ]);
  expect(compareWords('a'.repeat(30_000), 'b'.repeat(30_000))).toBeNull();
});

prop.prop([fc.string({ maxLength: 300 }), fc.string({ maxLength: 300 })])(
  'without what was added it is the text before, without what was removed the one after',
  (before, after) => {
    const pieces = compareWords(before, after) ?? [];
    const without = (change: 'added' | 'removed') =>
      pieces
        .filter((piece) => piece.change !== change)
        .map(({ text }) => text)
        .join('');
    expect(without('added')).toBe(before);
    expect(without('removed')).toBe(after);
  },
);

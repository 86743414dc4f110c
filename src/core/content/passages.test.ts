import { expect, test } from 'vitest';
import { PASSAGE_WORDS, passagesOf } from '@/core/content/passages';

const WORDS = Array.from({ length: 40 }, (_, n) => `word${String(n)}`);

test('a passage is found whatever its case, its line breaks and what stands around it', () => {
  const note = passagesOf(`Dear Mira,\n${WORDS.slice(10, 10 + PASSAGE_WORDS).join(' ')}. Yours`);
  expect(note.isLong).toBe(true);
  expect(note.isIn(WORDS.join('\n').toUpperCase())).toBe(true);
  expect(note.isIn(WORDS.toReversed().join(' '))).toBe(false);
});

test('fewer words than a passage are nobody’s', () => {
  const note = passagesOf(WORDS.slice(0, PASSAGE_WORDS - 1).join(' '));
  expect(note).toMatchObject({ isLong: false });
  expect(note.isIn(WORDS.join(' '))).toBe(false);
  expect(passagesOf(WORDS.join(' ')).isIn('')).toBe(false);
});

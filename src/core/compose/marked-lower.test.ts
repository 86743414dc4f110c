import { expect, test } from 'vitest';
import { markedLower } from '@/core/compose/marked-lower';

const MARKINGS = ['Open', 'Bidders', 'Board'].map((name) => ({ id: `mrk_${name}`, name }));
const lower = (subject: string, note: string, carried: readonly (string | null)[]) =>
  markedLower(MARKINGS, carried, { subject, note });

test('a message that names a lower marking than a document has is noticed, wherever it stands', () => {
  expect(lower('Bidders: round 2', '', ['mrk_Open', 'mrk_Board'])).toBe('subject');
  expect(lower('Round 2', 'This is for bidders.', ['mrk_Board'])).toBe('note');
});

test('the same marking, a stricter one, none and documents without one are well', () => {
  expect(lower('Board', 'and bidders', ['mrk_Bidders'])).toBeNull();
  expect(lower('Round 2', 'Hello', ['mrk_Board'])).toBeNull();
  expect(lower('For bidders', '', [null])).toBeNull();
  expect(lower('Openness', 'reopened', ['mrk_Board'])).toBeNull();
});

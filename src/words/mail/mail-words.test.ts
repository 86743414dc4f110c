import { expect, test } from 'vitest';
import { mailWords } from '@/words/mail/mail-words';

test('what was filled in is never read as a message itself', () => {
  const title = "{count, plural, one {x}} '<b>' #";
  expect(mailWords('de')('sent.titleNoEnd', { title })).toBe(`${title}, ohne Ende`);
});

import { describe, expect, test } from 'vitest';
import { sizeText } from '@/ui/words/size-words';

describe('what a file begins with', () => {
  test.each([
    [0, '0 B'],
    [999, '999 B'],
    [1000, '1.0 kB'],
    [52_340, '52 kB'],
    [4_700_000, '4.7 MB'],
    [1024 ** 3, '1.1 GB'],
    [5e12, '5000 GB'],
  ])('%i bytes are %s', (bytes, words) => {
    expect(sizeText(bytes)).toBe(words);
  });
});

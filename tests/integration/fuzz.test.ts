import { expect, test } from 'vitest';
import { fuzzParsers } from '../fuzz/parsers';

test('harmed headers and wrappers are read whole or refused in words (a short run of `npm run fuzz`)', async () => {
  expect(await fuzzParsers(20_000, 412)).toBe(20_000);
});

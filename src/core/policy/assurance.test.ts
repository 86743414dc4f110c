import fc from 'fast-check';
import { expect, test } from 'vitest';
import { assurances, type Held } from '@/core/policy/assurance';
import { OFFERED_RIGHTS, type Terms } from '@/core/policy/rights';

const READS: Terms = { rights: ['read'], from: null, until: null, prints: null };
const by = (terms: Terms, over: Partial<Parameters<typeof assurances>[1]> = {}) =>
  Object.fromEntries(
    assurances(terms, { carriesFile: false, marked: true, ...over }).map((line) => [
      line.held,
      line,
    ]),
  ) as Partial<Record<Held, { given: boolean; by: string }>>;

test('what is withheld is held by the server, a file by cryptography, the deterrent by the reader alone', () => {
  const found = by(
    { ...READS, conditions: { captureDeterrent: true, countries: ['NO'] } },
    { carriesFile: true },
  );
  expect(found.copy).toMatchObject({ held: 'copy', given: false, by: 'server' });
  expect(found.file?.by).toBe('cryptography');
  expect(found.capture?.by).toBe('reader');
  expect(found.place?.by).toBe('server');
});

test('copying is held by the reader alone where text comes for a screen reader', () => {
  expect(by(READS, { readingAids: true }).copy).toMatchObject({
    held: 'copy',
    given: false,
    by: 'reader',
  });
  expect(by(READS, { readingAids: true }).print?.by).toBe('server');
  const copies: Terms = { ...READS, rights: ['read', 'copy'] };
  expect(by(copies, { readingAids: true }).copy).toMatchObject({ given: true, by: 'nothing' });
});

test('what was copied, printed or kept is held by nothing, whatever else is true', () => {
  fc.assert(
    fc.property(fc.subarray([...OFFERED_RIGHTS]), fc.boolean(), (some, carriesFile) => {
      const found = by({ ...READS, rights: ['read', ...some] }, { carriesFile });
      for (const right of ['copy', 'print', 'keep'] as const)
        expect(found[right]?.by).toBe(some.includes(right) ? 'nothing' : 'server');
    }),
  );
});

test('on the person’s own machine only the reader holds what the key could get around', () => {
  fc.assert(
    fc.property(fc.subarray([...OFFERED_RIGHTS]), fc.nat(), (some, offline) => {
      const rights: Terms = { ...READS, rights: ['read', ...some] };
      const found = by({ ...rights, conditions: { offline, countries: ['NO'] } });
      for (const held of ['end', 'watermark', 'place'] as const)
        expect(found[held]?.by).toBe('reader');
      for (const right of ['copy', 'print', 'keep'] as const)
        expect(found[right]?.by).toBe(some.includes(right) ? 'nothing' : 'reader');
      for (const right of ['comment', 'revise', 'pass-on'] as const)
        expect(found[right]?.by).toBe('server');
    }),
  );
});

import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import { carriesFile, payloadName, protectedFileName } from '@/core/policy/delivery';

describe('what a protected file is called', () => {
  test('reference, title where it may be said, and for whom', () => {
    expect(
      protectedFileName({
        reference: 'TQ-412-001',
        title: 'General arrangement',
        organisation: 'Brackwater Yard',
      }),
    ).toBe('TQ-412-001 General arrangement - for Brackwater Yard.pdf');
    expect(
      protectedFileName({ reference: 'TQ-412-001', title: null, organisation: 'yard.example' }),
    ).toBe('TQ-412-001 - for yard.example.pdf');
    expect(payloadName('TQ/412')).toBe('TQ 412.age');
  });

  prop.prop([fc.string(), fc.option(fc.string(), { nil: null }), fc.string()])(
    'a name that every file system takes, whatever stands in it',
    (reference, title, organisation) => {
      const name = protectedFileName({ reference, title, organisation });
      expect(name).toMatch(/\.pdf$/);

      expect(name).not.toMatch(/[\u0000-\u001f<>:"/\\|?*]/);
      expect(name.length).toBeLessThan(260);
    },
  );

  test('only a link carries no file', () => {
    expect((['link', 'file', 'both'] as const).map(carriesFile)).toEqual([false, true, true]);
  });
});

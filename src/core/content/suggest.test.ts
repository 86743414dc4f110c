import { describe, expect, test } from 'vitest';
import {
  stricterMarking,
  suggestMarking,
  suggestReference,
  suggestTitle,
} from '@/core/content/suggest';

const shown = (over: Partial<Parameters<typeof suggestTitle>[0]>) => ({
  fileName: 'scan_0042.pdf',
  title: '',
  text: '',
  ...over,
});

describe('what a file says of itself', () => {
  test.each([
    ['its own title', { title: 'General arrangement' }, 'General arrangement'],
    ['its name, where its title says nothing', { title: 'Untitled' }, 'scan 0042'],
    ['its name, where its title is a file’s name', { title: 'plan.dwg' }, 'scan 0042'],
    [
      'neither with the reference in it',
      { fileName: 'TQ-412-GA-01 General arrangement.pdf' },
      'General arrangement',
    ],
    [
      'the reference, where there is nothing else',
      { fileName: 'TQ-412-GA-01.pdf' },
      'TQ-412-GA-01',
    ],
  ])('its title is %s', (_what, over, expected) => {
    expect(suggestTitle(shown(over))).toBe(expected);
  });

  test.each<[string, Partial<Parameters<typeof suggestTitle>[0]>, string | null]>([
    ['in its name', { fileName: 'TQ-412-GA-01_plan.pdf' }, 'TQ-412-GA-01'],
    ['in its title', { title: 'Weights TQ-412-WL-02' }, 'TQ-412-WL-02'],
    ['beside a label', { text: 'Hull 412. Drawing no: 4711/B. Scale 1:50' }, '4711/B'],
    ['nowhere', { text: 'IN-BETWEEN and SO-ON' }, null],
  ])('its reference is found %s', (_where, over, expected) => {
    expect(suggestReference(shown(over))).toBe(expected);
  });

  const markings = ['Open', 'Partners only', 'Office only'].map((name) => ({ id: name, name }));
  test('its marking is the strictest that it names in whole words', () => {
    expect(suggestMarking(markings, shown({ text: 'partners  ONLY. open' }))?.id).toBe(
      'Partners only',
    );
    expect(suggestMarking(markings, shown({ text: 'The opening' }))).toBeNull();
    expect(suggestMarking(markings, shown({ title: '(Office only)' }))?.id).toBe('Office only');
  });
});

test('of two markings the stricter one counts, and any before none', () => {
  const order = [{ id: 'open' }, { id: 'bidders' }, { id: 'board' }];
  expect(stricterMarking(order, 'open', 'board')).toBe('board');
  expect(stricterMarking(order, 'board', 'open')).toBe('board');
  expect(stricterMarking(order, null, 'open')).toBe('open');
  expect(stricterMarking(order, 'open', null)).toBe('open');
  expect(stricterMarking(order, null, null)).toBeNull();
});

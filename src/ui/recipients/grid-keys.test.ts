import { describe, expect, test } from 'vitest';
import { gridKeyOf } from '@/ui/recipients/grid-keys';

const press = (key: string, held: Partial<Record<'ctrl' | 'meta' | 'shift' | 'alt', true>> = {}) =>
  gridKeyOf({
    key,
    ctrlKey: held.ctrl ?? false,
    metaKey: held.meta ?? false,
    shiftKey: held.shift ?? false,
    altKey: held.alt ?? false,
  });

describe('a key on the grid', () => {
  test('moves by cells, pages and ends, and selects on its way with shift', () => {
    expect(press('ArrowDown')).toMatchObject({ kind: 'move', rows: 1, columns: 0, extend: false });
    expect(press('ArrowLeft', { shift: true })).toMatchObject({ columns: -1, extend: true });
    expect(press('PageUp')).toMatchObject({ rows: -10 });
    const end = press('End', { ctrl: true });
    expect(end).toMatchObject({ kind: 'move', rows: Number.MAX_SAFE_INTEGER });
  });

  test.each([
    [' ', {}, 'toggle'],
    ['Enter', {}, 'edit'],
    ['Delete', {}, 'clear'],
    ['Escape', {}, 'select-none'],
    ['d', { ctrl: true }, 'fill-down'],
    ['D', { meta: true }, 'fill-down'],
    ['a', { ctrl: true }, 'select-all'],
    ['z', { ctrl: true }, 'undo'],
    ['Z', { ctrl: true, shift: true }, 'redo'],
    ['y', { ctrl: true }, 'redo'],
    ['Delete', { ctrl: true }, 'remove'],
  ] as const)('%s with %o: %s', (key, held, kind) => {
    expect(press(key, held)?.kind).toBe(kind);
  });

  test('counts, where it is a digit', () => {
    expect(press('7')).toEqual({ kind: 'count', digit: 7 });
  });

  test.each([
    ['Tab', {}],
    ['x', {}],
    ['c', { ctrl: true }],
    ['ArrowDown', { alt: true }],
  ] as const)('is left to the browser otherwise: %s with %o', (key, held) => {
    expect(press(key, held)).toBeNull();
  });
});

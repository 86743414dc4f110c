import { describe, expect, test } from 'vitest';
import { rowOf, termsOfRow, type Row } from '@/core/compose/sheet';
import type { Terms } from '@/core/policy/rights';
import { clearStep, countStep, fillStep, toggleStep } from '@/ui/recipients/grid-steps';
import { shownRows, type GridColumn, type GridRow } from '@/ui/recipients/grid-view';
import { EMPTY_SHEET } from '@/core/compose/sheet';

const common: Terms = { rights: ['read'], from: null, until: 9, prints: null };
const person = (key: string, over: Partial<Row> = {}): GridRow => {
  const row = { ...rowOf(key, 'person'), ...over };
  return { row, terms: termsOfRow(row, common), known: undefined };
};
const rows = [
  person('b@yard.example', { name: 'Bo', organisation: 'Yard' }),
  person('a@port.example', { name: 'Åse', organisation: 'Port', own: { until: 5 } }),
  person('c@yard.example', { own: { rights: { print: true }, prints: 2 } }),
];
const columns: readonly GridColumn[] = ['who', 'organisation', 'read', 'print', 'ends', 'opens'];
const wanted = {
  text: '',
  filter: 'all' as const,
  order: null,
  common,
  columns,
  isToLookAt: (key: string) => key.startsWith('c'),
};
const keys = (over: Partial<Parameters<typeof shownRows>[1]>) =>
  shownRows(rows, { ...wanted, ...over }).map(({ row }) => row.key.charAt(0));

describe('the rows of the grid', () => {
  test('are found by name, address and organisation', () => {
    expect(keys({ text: 'yard' })).toEqual(['b', 'c']);
    expect(keys({ text: ' åSE ' })).toEqual(['a']);
  });

  test('are filtered by what differs and what is to look at', () => {
    expect(keys({ filter: 'different' })).toEqual(['a', 'c']);
    expect(keys({ filter: 'to-look-at' })).toEqual(['c']);
    expect(keys({ filter: 'new' })).toEqual([]);
  });

  test('are put in order by each column, and back as they came', () => {
    expect(keys({ order: { by: 'who', down: false } })).toEqual(['a', 'b', 'c']);
    expect(keys({ order: { by: 'ends', down: true } })).toEqual(['b', 'c', 'a']);
    expect(keys({ order: { by: 'print', down: false } })).toEqual(['c', 'b', 'a']);
    expect(keys({})).toEqual(['b', 'a', 'c']);
  });
});

describe('a step', () => {
  const sheet = { ...EMPTY_SHEET, rows: rows.map(({ row }) => row), common };
  const of = (step: ReturnType<typeof fillStep>, at: number): Terms => {
    const after = step?.step(sheet, common);
    const row = after?.rows[at];
    if (row === undefined) throw new Error('nothing was done');
    return termsOfRow(row, common);
  };
  const selected = new Set(['b@yard.example', 'c@yard.example']);

  test('switches all selected rows as the active one', () => {
    const step = toggleStep('print', common, selected);
    expect(of(step, 0).rights).toContain('print');
    expect(of(step, 1).rights).not.toContain('print');
    expect(of(toggleStep('print', rows[2]?.terms ?? common, selected), 2).rights).toEqual(['read']);
  });

  test('never takes Read, and says why', () => {
    const step = toggleStep('read', common, selected);
    expect(step?.said).toMatch(/needs Read/);
    expect(step?.step(sheet, common)).toBe(sheet);
  });

  test('counts prints and opens, where 0 is no limit, and nothing else', () => {
    expect(of(countStep('print', 3, common, selected), 0)).toMatchObject({
      rights: ['read', 'print'],
      prints: 3,
    });
    expect(of(countStep('print', 0, common, selected), 2).prints).toBeNull();
    expect(of(countStep('opens', 4, common, selected), 0).conditions).toEqual({ opens: 4 });
    expect(countStep('ends', 4, common, selected)).toBeNull();
  });

  test('fills down from the row above, from the first selected, or from the common terms', () => {
    expect(of(fillStep('ends', rows, 'c@yard.example', new Set()), 2).until).toBe(5);
    const last = new Set(['a@port.example', 'c@yard.example']);
    expect(of(fillStep('ends', rows, 'c@yard.example', last), 2).until).toBe(5);
    expect(of(fillStep('ends', rows, null, new Set()), 1).until).toBe(9);
    expect(of(fillStep('print', rows, null, new Set()), 2).rights).toEqual(['read']);
  });

  test('gives back what is common in a column', () => {
    expect(of(clearStep('ends', new Set(['a@port.example'])), 1).until).toBe(9);
    expect(clearStep('ends', 'common')).toBeNull();
  });
});

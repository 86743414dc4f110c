import { screen, within } from '@testing-library/react';
import { beforeEach, expect, test, vi } from 'vitest';
import type { Column, Order } from '@/ui/tables/column';
import { DataTable } from '@/ui/tables/data-table';
import { show } from '../../../tests/support/screen';

type Ship = { readonly id: string; readonly name: string; readonly tons: number | null };
const ships: readonly Ship[] = [
  { id: 's1', name: 'Hull 10', tons: 40 },
  { id: 's2', name: 'hull 9', tons: null },
  { id: 's3', name: 'Anchor', tons: 900 },
];
const columns: readonly Column<Ship>[] = [
  { id: 'name', header: 'Name', width: 200, orderBy: ({ name }) => name, cell: ({ name }) => name },
  {
    id: 'tons',
    header: 'Tons',
    width: 80,
    kind: 'number',
    orderBy: ({ tons }) => tons,
    cell: ({ tons }) => tons ?? 'not known',
  },
  { id: 'note', header: 'Note', width: 90, cell: () => '' },
];
const table = (order?: Order, id = 'ships') => (
  <DataTable
    id={id}
    label="Ships"
    columns={columns}
    rows={ships}
    keyOf={(ship) => ship.id}
    {...(order === undefined ? {} : { order })}
  />
);

beforeEach(() => {
  localStorage.clear();
});

const names = () =>
  within(screen.getByRole('table', { name: 'Ships' }))
    .getAllByRole('row')
    .slice(1)
    .map((row) => within(row).getAllByRole('cell')[0]?.textContent);
const head = (name: string) => screen.getByRole('columnheader', { name });

test('a column orders the list, then the other way round, then as it came', async () => {
  const { user } = show(table());
  expect(names()).toEqual(['Hull 10', 'hull 9', 'Anchor']);
  const button = within(head('Name')).getByRole('button', { name: 'Name' });
  await user.click(button);
  expect(names()).toEqual(['Anchor', 'hull 9', 'Hull 10']);
  expect(head('Name').getAttribute('aria-sort')).toBe('ascending');
  await user.click(button);
  expect(names()).toEqual(['Hull 10', 'hull 9', 'Anchor']);
  expect(head('Name').getAttribute('aria-sort')).toBe('descending');
  await user.click(button);
  expect(head('Name').getAttribute('aria-sort')).toBeNull();
});

test('numbers begin with the largest, and what is not known comes last both ways', async () => {
  const { user } = show(table());
  const button = within(head('Tons')).getByRole('button', { name: 'Tons' });
  await user.click(button);
  expect(names()).toEqual(['Anchor', 'Hull 10', 'hull 9']);
  await user.click(button);
  expect(names()).toEqual(['Hull 10', 'Anchor', 'hull 9']);
});

test('what has no order offers none', () => {
  show(table());
  expect(within(head('Note')).queryByRole('button')).toBeNull();
});

test('where the server orders, the rows stay as they came and the order is asked for', async () => {
  const onOrder = vi.fn<Order['onOrder']>();
  const { user } = show(table({ by: 'tons', down: true, onOrder }));
  expect(head('Tons').getAttribute('aria-sort')).toBe('descending');
  expect(names()).toEqual(['Hull 10', 'hull 9', 'Anchor']);
  await user.click(within(head('Name')).getByRole('button', { name: 'Name' }));
  await user.click(within(head('Tons')).getByRole('button', { name: 'Tons' }));
  expect(onOrder.mock.calls).toEqual([
    ['name', false],
    ['tons', false],
  ]);
});

test('a width set with the keyboard is kept for this list, and for no other', async () => {
  const { user } = show(
    <>
      {table()}
      {table(undefined, 'boats')}
    </>,
  );
  const [first, second] = screen.getAllByRole('separator', { name: 'Width of Tons' });
  first?.focus();
  await user.keyboard('{ArrowRight}{ArrowRight}');
  expect(Number(first?.getAttribute('aria-valuenow'))).toBeGreaterThan(0);
  expect(
    Object.keys(JSON.parse(localStorage.getItem('embargo.widths.ships') ?? '{}') as object),
  ).toEqual(['name', 'tons', 'note']);
  expect(localStorage.getItem('embargo.widths.boats')).toBeNull();
  expect(second?.getAttribute('aria-valuenow')).toBe('80');
});

test('widths that were tampered with are as if none were kept', () => {
  localStorage.setItem('embargo.widths.ships', '{"name":"wide","tons":120');
  show(table());
  expect(
    screen.getByRole('separator', { name: 'Width of Tons' }).getAttribute('aria-valuenow'),
  ).toBe('80');
});

import { fireEvent, screen, within } from '@testing-library/react';
import { expect, test } from 'vitest';
import { addRows, EMPTY_SHEET, rowOf, type Sheet } from '@/core/compose/sheet';
import type { Terms } from '@/core/policy/rights';
import { AddressBox } from '@/ui/recipients/address-box';
import { gridColumns } from '@/ui/recipients/grid-columns';
import { RecipientsGrid } from '@/ui/recipients/recipients-grid';
import { useFacts } from '@/ui/recipients/use-facts';
import { useGridRows } from '@/ui/recipients/use-grid-rows';
import { useSheet } from '@/ui/recipients/use-sheet';
import { show } from '../../../tests/support/screen';

const NOW = Date.UTC(2026, 10, 25, 9);
const common: Terms = { rights: ['read'], from: null, until: NOW + 86_400_000, prints: null };
const documents = [
  { id: 'doc_a' as const, title: 'Lines plan', reference: 'TQ-1' },
  { id: 'doc_b' as const, title: 'Weight list', reference: 'TQ-2' },
];
const begun: Sheet = {
  ...EMPTY_SHEET,
  documents: documents.map(({ id }) => id),
  rows: ['mira', 'jonas'].map((name) =>
    rowOf(`${name}@yard.example`, 'person', { name, organisation: 'Yard' }),
  ),
  common,
};

function nothing(): void {
  // Nobody listens here.
}

function Composing() {
  const work = useSheet(begun, () => common);
  const rows = useGridRows(work, useFacts(work.sheet.rows), null);
  return (
    <>
      <AddressBox
        onAdd={(added) => {
          work.change((sheet) => addRows(sheet, added));
        }}
      />
      <RecipientsGrid
        work={work}
        rows={rows}
        columns={gridColumns({ isClear: false, documents: documents.length })}
        documents={documents}
        now={NOW}
        order={null}
        onOrder={nothing}
        concernOf={() => null}
        onPaste={nothing}
        onPlace={nothing}
      />
    </>
  );
}

const answers = {
  'POST /api/v1/recipients/check': () => ({ checks: [], domains: [] }),
  'GET /api/v1/recipients/suggest': ({ q }: Readonly<Record<string, unknown>>) => ({
    found: [
      {
        kind: 'person' as const,
        address: 'rana@class.example',
        name: 'Rana Solheim',
        organisation: 'Class',
        blocked: false,
        inside: false,
        lastSentAt: null,
        readingAids: false,
      },
    ].filter(({ name }) => name.toLowerCase().includes(String(q).toLowerCase())),
  }),
};
const cell = (row: string, column: string) =>
  within(screen.getByRole('row', { name: row })).getByRole('gridcell', {
    name: new RegExp(`^${column}: `),
  });
const says = (row: string, column: string) => cell(row, column).getAttribute('aria-label');

test('a right is switched by a press for one, and by keys for those that are selected', async () => {
  const { user } = show(<Composing />, answers);
  await user.click(cell('mira', 'Copy text'));
  expect(says('mira', 'Copy text')).toBe('Copy text: yes');
  expect(says('jonas', 'Copy text')).toBe('Copy text: no');
  screen.getByRole('grid').focus();
  await user.keyboard('{Control>}a{/Control}{ArrowRight}3');
  expect([says('mira', 'Print'), says('jonas', 'Print')]).toEqual(['Print: 3', 'Print: 3']);
  await user.keyboard('{Control>}z{/Control}');
  expect(says('jonas', 'Print')).toBe('Print: no');
});

test('Keep a copy falls with the text that may no longer be copied, and says so', async () => {
  const { user } = show(<Composing />, answers);
  for (const column of ['Copy text', 'Print', 'Keep a copy'])
    await user.click(cell('mira', column));
  await user.click(cell('mira', 'Copy text'));
  expect(says('mira', 'Keep a copy')).toBe('Keep a copy: no');
  expect(screen.getByText(/Keep a copy is possible only where text may be copied/)).toBeDefined();
});

test('the common terms change for everybody who does not differ', async () => {
  const { user } = show(<Composing />, answers);
  await user.click(cell('mira', 'Print'));
  await user.click(cell('Common terms', 'Copy text'));
  await user.click(cell('Common terms', 'Print'));
  expect(says('jonas', 'Copy text')).toBe('Copy text: yes');
  await user.click(cell('Common terms', 'Print'));
  expect([says('jonas', 'Print'), says('mira', 'Print')]).toEqual(['Print: no', 'Print: yes']);
});

test('a cell is copied into others of its column, a name into all that others are given', async () => {
  const { user } = show(<Composing />, answers);
  const board = { text: '' };
  const clipboardData = {
    setData: (_type: string, text: string) => {
      board.text = text;
    },
    getData: () => board.text,
  };
  const grid = screen.getByRole('grid');
  await user.click(cell('mira', 'Print'));
  await user.click(cell('mira', 'Copy text'));
  grid.focus();
  fireEvent.copy(grid, { clipboardData });
  expect(board.text).toBe('yes');
  await user.keyboard('{ArrowDown}');
  fireEvent.paste(grid, { clipboardData });
  expect([says('jonas', 'Copy text'), says('jonas', 'Print')]).toEqual([
    'Copy text: yes',
    'Print: no',
  ]);
  await user.keyboard('{ArrowRight}');
  fireEvent.paste(grid, { clipboardData });
  expect(screen.getByText(/copied from another column/)).toBeDefined();
  await user.keyboard('{Home}{ArrowUp}');
  fireEvent.copy(grid, { clipboardData });
  await user.keyboard('{ArrowDown}');
  fireEvent.paste(grid, { clipboardData });
  expect(says('jonas', 'Print')).toBe('Print: yes');
});

test('documents are taken from one row, and given back by a key', async () => {
  const { user } = show(<Composing />, answers);
  await user.click(cell('jonas', 'Files'));
  await user.click(await screen.findByRole('checkbox', { name: /Weight list/ }));
  await user.keyboard('{Escape}');
  expect(says('jonas', 'Files')).toBe('Files: 1 of 2');
  screen.getByRole('grid').focus();
  await user.keyboard('{Delete}');
  expect(says('jonas', 'Files')).toBe('Files: 2 of 2');
});

test('somebody is found by name although enter came before the answer, and a list is pasted', async () => {
  const { user } = show(<Composing />, answers);
  const box = screen.getByRole('combobox', { name: 'Recipients' });
  await user.type(box, 'Rana{Enter}');
  expect(await screen.findByRole('row', { name: 'rana@class.example' })).toBeDefined();
  await user.click(box);
  await user.paste('Ann Lee <ann@port.example>; @dock.example; nobody');
  expect(await screen.findByRole('row', { name: 'Ann Lee' })).toBeDefined();
  expect(screen.getByRole('row', { name: 'Everyone at dock.example' })).toBeDefined();
  expect(screen.getByText('Not an email address: nobody')).toBeDefined();
  expect((box as HTMLInputElement).value).toBe('nobody');
});

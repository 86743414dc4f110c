import { useState } from 'react';
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import MomentPicker from '@/ui/time/moment-picker';

const taken = vi.fn<(at: number | null) => void>();
beforeEach(() => {
  taken.mockReset();
});
afterEach(cleanup);

function Form({ first }: { readonly first: number | null }) {
  const [at, setAt] = useState(first);
  return (
    <>
      <MomentPicker
        label="Ends"
        value={at}
        onChange={(next) => {
          taken(next);
          setAt(next);
        }}
        none="No end"
      />
      <button type="button">Elsewhere</button>
    </>
  );
}
const field = (): HTMLElement => screen.getByRole('group', { name: 'Ends' });
const shown = (): string => field().textContent.replaceAll(/[\u2066-\u2069]/g, '');

const firstSection = (): HTMLElement => screen.getByRole('spinbutton', { name: 'Day' });
const NEW_YEAR = new Date(2030, 0, 1, 12, 0).getTime();

test.each([
  ['17 Dec 2026 09:00', new Date(2026, 11, 17, 9, 0)],
  ['1 Jan 2030 12:00', new Date(NEW_YEAR)],
  ['31 aug 2027 23:59', new Date(2027, 7, 31, 23, 59)],
])('%s is typed as it is written', async (text, moment) => {
  const user = userEvent.setup();
  render(<Form first={null} />);
  expect(screen.getByText('No end')).toBeDefined();
  await user.click(firstSection());
  await user.keyboard(text);
  for (const [at] of taken.mock.calls) expect(at).toBeGreaterThan(new Date(2020, 0, 1).getTime());
  expect(taken.mock.calls.at(-1)).toEqual([moment.getTime()]);
});

test('a moment shows with its zone', () => {
  render(<Form first={NEW_YEAR} />);
  expect(shown()).toMatch(/^1 Jan 2030 12:00/);
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  expect(screen.getByText(new RegExp(`^${zone}`))).toBeDefined();
});

test('what is half typed counts for nothing, is said, and goes when the field is left', async () => {
  const user = userEvent.setup();
  render(<Form first={NEW_YEAR} />);
  await user.click(firstSection());
  await user.keyboard('{Backspace}');
  expect(screen.getByText('Day, month, year and time, or nothing')).toBeDefined();
  expect(taken).not.toHaveBeenCalled();
  await user.click(screen.getByRole('button', { name: 'Elsewhere' }));
  expect(shown()).toMatch(/^1 Jan 2030 12:00/);
  expect(taken).not.toHaveBeenCalled();
});

test('it is emptied by one button', async () => {
  const user = userEvent.setup();
  render(<Form first={NEW_YEAR} />);
  await user.click(screen.getByRole('button', { name: 'Clear' }));
  expect(taken.mock.calls).toEqual([[null]]);
  expect(screen.getByText('No end')).toBeDefined();
});

test('emptied by hand it is empty once it is left', async () => {
  const user = userEvent.setup();
  render(<Form first={NEW_YEAR} />);
  for (const section of within(field()).getAllByRole('spinbutton')) {
    await user.click(section);
    await user.keyboard('{Backspace}');
  }
  expect(taken).not.toHaveBeenCalled();
  await user.click(screen.getByRole('button', { name: 'Elsewhere' }));
  expect(taken.mock.calls).toEqual([[null]]);
});

import { cleanup, render, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { ClockField, DayField, MomentField } from '@/ui/time/moment-field';

afterEach(cleanup);

const none = vi.fn<() => void>();
const below = (): HTMLElement | null => document.querySelector('p');

test('a moment waits for its picker with a line kept below, where its zone will stand', async () => {
  render(<MomentField label="Ends" value={null} onChange={none} none="No end" />);
  expect(below()).not.toBeNull();
  expect(await screen.findByRole('group', { name: 'Ends' })).toBeDefined();
  expect(below()).not.toBeNull();
});

test.each([
  ['a day', <DayField key="day" label="From" value={null} onChange={none} />],
  ['a time', <ClockField key="time" label="From" minute={null} onChange={none} />],
])('%s waits for its picker as high as it will stand', async (_, field) => {
  render(field);
  expect(below()).toBeNull();
  expect(await screen.findByRole('group', { name: 'From' })).toBeDefined();
  expect(below()).toBeNull();
});

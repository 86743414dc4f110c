import { useState } from 'react';
import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { Conditions } from '@/core/policy/conditions';
import { ConditionsFields } from '@/ui/terms-fields/conditions-fields';

const set = vi.fn<(value: Conditions | undefined) => void>();
beforeEach(() => {
  set.mockReset();
});
afterEach(cleanup);

function Form({ first }: { readonly first?: Conditions }) {
  const [value, setValue] = useState(first);
  return (
    <ConditionsFields
      value={value}
      onChange={(next) => {
        set(next);
        setValue(next);
      }}
    />
  );
}

async function opened(first?: Conditions) {
  const user = userEvent.setup();
  render(first === undefined ? <Form /> : <Form first={first} />);
  await user.click(screen.getByRole('button', { name: 'Conditions…' }));
  return user;
}

test('closed, it says in one line what is asked', () => {
  render(<Form first={{ opens: 3, countries: ['NO'] }} />);
  expect(screen.getByText('opens 3 times; only from NO')).toBeDefined();
  expect(screen.queryByRole('region', { name: 'Conditions' })).toBeNull();
});

test('nothing asked is no condition at all', async () => {
  const user = await opened({ opens: 3 });
  await user.clear(screen.getByLabelText('Opens each'));
  expect(set).toHaveBeenLastCalledWith(undefined);
});

test('counts are told in the unit of their label and kept in milliseconds', async () => {
  const user = await opened();
  await user.type(screen.getByLabelText('Hours from the first open'), '12');
  expect(set).toHaveBeenLastCalledWith({ within: 12 * 3_600_000 });
  await user.type(screen.getByLabelText('Prove again after days'), '2');
  expect(set).toHaveBeenLastCalledWith({ within: 12 * 3_600_000, proveEvery: 2 * 86_400_000 });
});

test('a list stays as it is typed, separators and all', async () => {
  const user = await opened();
  const field = screen.getByLabelText<HTMLInputElement>('Only in the countries');
  await user.type(field, 'NO; GB, ');
  expect(field.value).toBe('NO; GB, ');
  expect(set).toHaveBeenLastCalledWith({ countries: ['NO', 'GB'] });
});

test('hours begin with those of an office; a day is taken out, and the last one stays', async () => {
  const user = await opened();
  await user.click(screen.getByLabelText('Only at certain hours'));
  expect(set).toHaveBeenLastCalledWith({ hours: { days: [1, 2, 3, 4, 5], from: 480, to: 1020 } });
  for (const day of ['Mon', 'Tue', 'Wed', 'Thu', 'Fri'])
    await user.click(screen.getByRole('button', { name: day }));
  expect(set).toHaveBeenLastCalledWith({ hours: { days: [5], from: 480, to: 1020 } });
  await user.click(screen.getByLabelText('Only at certain hours'));
  expect(set).toHaveBeenLastCalledWith(undefined);
});

test('passing on needs somebody to pass on to before domains and steps can be said', async () => {
  const user = await opened();
  const domains = screen.getByLabelText<HTMLInputElement>('At domains');
  expect(domains.disabled).toBe(true);
  await user.type(screen.getByLabelText('Passed on to people'), '2');
  await user.type(domains, 'yard.example');
  expect(set).toHaveBeenLastCalledWith({
    passOn: { people: 2, domains: ['yard.example'], steps: 1 },
  });
});

import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import { Confirmation } from '@/ui/shell/confirmation';
import { ReasonsAskedProvider } from '@/ui/shell/reason-field';

const confirm = vi.fn<(reason: string) => void>();
const close = vi.fn<() => void>();
beforeEach(() => {
  confirm.mockReset();
  close.mockReset();
});
afterEach(cleanup);

function show({ asked = false, busy = false } = {}) {
  render(
    <ReasonsAskedProvider value={asked}>
      <Confirmation
        open
        title="Revoke 2 people?"
        action="Revoke 2"
        busy={busy}
        onConfirm={confirm}
        onClose={close}
      >
        <p>Omar Kell reads now.</p>
      </Confirmation>
    </ReasonsAskedProvider>,
  );
  return userEvent.setup();
}
const action = (): HTMLButtonElement => screen.getByRole('button', { name: 'Revoke 2' });

test('it is a dialog with the name of what is about to happen, and says whom it hits', () => {
  show();
  expect(screen.getByRole('dialog', { name: 'Revoke 2 people?' })).toBeDefined();
  expect(screen.getByText('Omar Kell reads now.')).toBeDefined();
});

test('a reason is wanted where the organisation asks for one: spaces are none', async () => {
  const user = show({ asked: true });
  expect(action().disabled).toBe(true);
  await user.type(screen.getByLabelText(/^Reason/), '   ');
  expect(action().disabled).toBe(true);
  await user.type(screen.getByLabelText(/^Reason/), 'Tender closed ');
  await user.click(action());
  expect(confirm.mock.calls).toEqual([['Tender closed']]);
});

test('where none is asked for, it can be done without', async () => {
  const user = show();
  await user.click(action());
  expect(confirm.mock.calls).toEqual([['']]);
});

test('it is left by its button and by Escape, and nothing is done', async () => {
  const user = show();
  await user.click(screen.getByRole('button', { name: 'Cancel' }));
  await user.keyboard('{Escape}');
  expect(close).toHaveBeenCalledTimes(2);
  expect(confirm).not.toHaveBeenCalled();
});

test('while it is being done it cannot be done again', async () => {
  const user = show({ busy: true });
  await user.click(action()).catch(() => null);
  expect(confirm).not.toHaveBeenCalled();
});

import { screen, waitFor } from '@testing-library/react';
import { expect, test } from 'vitest';
import { useAttempt } from '@/ui/http/use-attempt';
import { InviteForm } from '@/ui/settings/invite-form';
import { Notice } from '@/ui/shell/notice';
import { show } from '../../../tests/support/screen';

function Screen() {
  const { said, attempt } = useAttempt();
  return (
    <>
      <InviteForm mail attempt={attempt} />
      <Notice said={said} />
    </>
  );
}
const field = (name: RegExp) => screen.getByRole<HTMLInputElement>('textbox', { name });
const invite = () => screen.getByRole('button', { name: 'Invite' });

test('what is wrong is said at its field before anything is sent', async () => {
  const { user, calls } = show(<Screen />);
  await user.type(field(/Email/), 'nils at yard');
  await user.click(invite());
  expect(await screen.findByText('The name is missing.')).toBeDefined();
  await waitFor(() => {
    expect(field(/Email/).getAttribute('aria-invalid')).toBe('true');
  });
  expect(calls).toEqual([]);
  await user.type(field(/Name/), 'Nils');
  await waitFor(() => {
    expect(screen.queryByText('The name is missing.')).toBeNull();
  });
});

test('it is sent as it was checked, and the form begins anew', async () => {
  const { user, calls } = show(<Screen />, { 'POST /api/v1/staff': () => ({}) });
  await user.type(field(/Name/), '  Nils Aker ');
  await user.type(field(/Email/), 'Nils@Yard.example');
  await user.click(invite());
  expect(await screen.findByText('Nils Aker was invited.')).toBeDefined();
  expect(calls).toEqual([
    {
      route: 'POST /api/v1/staff',
      input: { name: 'Nils Aker', email: 'nils@yard.example', role: 'sender' },
    },
  ]);
  expect(field(/Name/).value).toBe('');
});

test('where the server refuses, nothing that was typed is lost, and it is said at the field', async () => {
  const { user } = show(<Screen />, {
    'POST /api/v1/staff': {
      status: 422,
      error: {
        code: 'INVALID',
        message: 'Please check: somebody has this email address.',
        fields: { email: 'somebody has this email address' },
      },
    },
  });
  await user.type(field(/Name/), 'Nils');
  await user.type(field(/Email/), 'nils@yard.example');
  await user.click(invite());
  expect(await screen.findByText('Somebody has this email address.')).toBeDefined();
  expect(screen.getByRole('alert').textContent).toContain('Please check');
  expect([field(/Name/).value, field(/Email/).value]).toEqual(['Nils', 'nils@yard.example']);
});

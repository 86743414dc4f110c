import { screen, waitFor } from '@testing-library/react';
import { expect, test, vi } from 'vitest';
import type { CeilingRow } from '@/contracts/ceiling';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { useAttempt } from '@/ui/http/use-attempt';
import { CeilingForm } from '@/ui/levels/ceiling-form';
import type { RuleDone } from '@/ui/levels/rule-done';
import { Notice } from '@/ui/shell/notice';
import { show, type Answer } from '../../../tests/support/screen';

const known: CeilingRow = {
  level: 'organisation',
  subject: '',
  name: 'the organisation',
  limits: { ...NO_LIMITS, days: 30 },
  setBy: 'Ida Roe',
  setAt: 1_700_000_000_000,
};
const nobody: Answer = () => ({
  pairs: 0,
  people: 0,
  unknown: false,
  documents: 0,
  rows: [],
  rights: [],
  readsOn: null,
  ...Object.fromEntries(
    ['endNow', 'endSooner', 'endLater', 'revive', 'other'].map((name) => [
      name,
      { people: 0, unknown: false },
    ]),
  ),
  idle: ['No document is marked so.'],
});

function Screen({ onDone }: { readonly onDone: (done: RuleDone) => void }) {
  const { said, busy, attempt } = useAttempt();
  return (
    <>
      <CeilingForm
        of={known}
        page={{ ceilings: [known], markings: [], folders: [] }}
        mayChange
        attempt={attempt}
        busy={busy}
        onDone={onDone}
      />
      <Notice said={said} />
    </>
  );
}
const days = () => screen.getByRole<HTMLInputElement>('spinbutton', { name: 'Days' });
const look = () => screen.getByRole('button', { name: 'Show who is affected' });

test('whom it touches is read before it is set, and what is typed then makes it be read again', async () => {
  const onDone = vi.fn<(done: RuleDone) => void>();
  const { user, calls } = show(<Screen onDone={onDone} />, {
    'POST /api/v1/ceilings/preview': nobody,
    'POST /api/v1/ceilings': () => ({ before: known.limits, setAt: 5 }),
  });
  expect(days().value).toBe('30');
  await user.clear(days());
  await user.type(days(), '14');
  await user.type(screen.getByRole('textbox', { name: 'Countries' }), 'no, gb');
  await user.click(look());
  expect(await screen.findByText('No document is marked so.')).toBeDefined();
  expect(screen.queryByRole('button', { name: 'Show who is affected' })).toBeNull();
  await user.type(screen.getByRole('textbox', { name: 'Countries' }), ', de');
  expect(await screen.findByRole('button', { name: 'Show who is affected' })).toBeDefined();
  await user.click(look());
  const set = await screen.findByRole('button', { name: 'Set ceiling' });
  await waitFor(() => {
    expect(set).toHaveProperty('disabled', false);
  });
  await user.click(set);
  await waitFor(() => {
    expect(onDone).toHaveBeenCalledOnce();
  });
  expect(calls.at(-1)).toEqual({
    route: 'POST /api/v1/ceilings',
    input: {
      level: 'organisation',
      subject: '',
      limits: { ...NO_LIMITS, days: 14, countries: ['NO', 'GB', 'DE'] },
      seen: known.setAt,
    },
  });
  await onDone.mock.calls[0]?.[0].undo();
  expect(calls.at(-1)?.input).toMatchObject({ limits: known.limits, seen: 5 });
});

test('a country that is none is said at its field, and nobody is asked', async () => {
  const { user, calls } = show(<Screen onDone={vi.fn()} />);
  await user.type(screen.getByRole('textbox', { name: 'Countries' }), 'NO, QQ');
  await user.click(look());
  expect(await screen.findByText('“QQ” is not a country code.')).toBeDefined();
  expect(calls).toEqual([]);
});

test('it is removed by limiting nothing, after the same look', async () => {
  const { user, calls } = show(<Screen onDone={vi.fn()} />, {
    'POST /api/v1/ceilings/preview': nobody,
  });
  await user.click(screen.getByRole('button', { name: 'Remove ceiling…' }));
  expect(await screen.findByRole('button', { name: 'Remove ceiling' })).toBeDefined();
  expect(calls[0]?.input).toMatchObject({ limits: NO_LIMITS });
  expect(days().value).toBe('');
});

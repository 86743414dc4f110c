import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { AskForm } from '@/ui/reader/ask-form';
import { readerCall } from '@/ui/reader/reader-call';

vi.mock('@/ui/reader/reader-call', () => ({ readerCall: vi.fn(() => Promise.resolve([])) }));
afterEach(cleanup);

test('time that was asked for is not asked for again with the next message', async () => {
  const user = userEvent.setup();
  render(
    <AskForm
      token="t"
      document="doc_1111111111111111"
      sender="Ida Roe"
      requests={[]}
      onRequests={() => undefined}
      granted={['read']}
    />,
  );
  const ask = async (reason: string, until: string) => {
    await user.click(screen.getByRole('button', { name: 'Ask for more, or write' }));
    await user.click(await screen.findByRole('spinbutton', { name: 'Day' }));
    if (until !== '') await user.keyboard(until);
    await user.type(screen.getByLabelText(/^Reason or message/), reason);
    await user.click(screen.getByRole('button', { name: 'Send to Ida Roe' }));
  };
  await ask('More time, please', '1 Jan 2030 12:00');
  await ask('And a question', '');
  expect(vi.mocked(readerCall).mock.calls.map(([, , body]) => body)).toMatchObject([
    { until: new Date(2030, 0, 1, 12, 0).getTime(), reason: 'More time, please' },
    { until: null, reason: 'And a question' },
  ]);
});

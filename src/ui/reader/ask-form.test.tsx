import { cleanup, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { useAsking } from '@/ui/reader/use-asking';
import { AskForm } from '@/ui/reader/ask-form';
import { RightsPanel } from '@/ui/reader/rights-panel';
import type { OwnRequest } from '@/contracts/requests';
import { readerCall } from '@/ui/reader/reader-call';

vi.mock('@/ui/reader/reader-call', () => ({ readerCall: vi.fn(() => Promise.resolve([])) }));
afterEach(cleanup);

function Asked() {
  return (
    <AskForm
      token="t"
      document="doc_1111111111111111"
      sender="Ida Roe"
      requests={[]}
      onRequests={() => undefined}
      granted={['read']}
      asking={useAsking()}
    />
  );
}

test('time that was asked for is not asked for again with the next message', async () => {
  const user = userEvent.setup();
  render(<Asked />);
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

const none = {
  granted: false,
  why: 'not-given',
  source: { level: 'grant', grant: null },
} as const;
const given = { granted: true, grant: 'grt_11111111111111111111', printsLeft: null } as const;

function Panel({ requests = [] }: { readonly requests?: readonly OwnRequest[] }) {
  const asking = useAsking();
  const rights = {
    ...{ read: given, comment: none, copy: none, print: none },
    ...{ revise: none, keep: none, 'pass-on': none },
  };
  return (
    <>
      <RightsPanel rights={rights} sender="Ida Roe" requests={requests} onAsk={asking.begin} />
      <AskForm
        token="t"
        document="doc_1111111111111111"
        sender="Ida Roe"
        requests={requests}
        onRequests={() => undefined}
        granted={['read']}
        asking={asking}
      />
    </>
  );
}

test('what was not given is asked for where it stands, and is written about at once', async () => {
  vi.mocked(readerCall).mockClear();
  const user = userEvent.setup();
  render(<Panel />);
  await user.click(screen.getByRole('button', { name: 'Ask to print' }));
  expect(screen.getByLabelText<HTMLInputElement>('To print').checked).toBe(true);
  await user.keyboard('For the meeting');
  // Another one is added; what was written stays.
  await user.click(screen.getByRole('button', { name: 'Ask to copy text' }));
  await user.click(screen.getByRole('button', { name: 'Send to Ida Roe' }));
  expect(vi.mocked(readerCall).mock.calls.map(([, , body]) => body)).toMatchObject([
    { right: 'print', reason: 'For the meeting' },
    { right: 'copy', reason: 'For the meeting' },
  ]);
  expect(screen.queryByRole('button', { name: 'Ask to pass it on' })).toBeNull();
});

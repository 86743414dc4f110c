import { cleanup, renderHook, waitFor } from '@testing-library/react';
import { afterEach, beforeEach, expect, test, vi } from 'vitest';
import type { LicenceId } from '@/core/base/ids';
import { CallError, unreachable } from '@/ui/http/call';
import { readerCall, readerFetch } from '@/ui/reader/reader-call';
import { useLive } from '@/ui/reader/use-live';

vi.mock('@/ui/reader/reader-call', () => ({ readerCall: vi.fn(), readerFetch: vi.fn() }));
afterEach(cleanup);
beforeEach(() => {
  vi.resetAllMocks();
});

const LICENCE = 'lic_1111111111111111' as LicenceId;
/** The server's clock is a year from this machine's. */
const ENDLESS = { until: null, asOf: Date.now() - 31_536_000_000 };

const notProven = () => new CallError('Prove the address again.', 'NOT_SIGNED_IN', 401);
const goesOn = (state: object) => ({ outcome: 'granted', ...state });

/** A stream that says once that something changed, and stays. */
const changedOnce = () =>
  new Response(
    new ReadableStream({
      start: (stream) => {
        stream.enqueue(new TextEncoder().encode('event: changed\ndata: {}\n\n'));
      },
    }),
  );

function live(state: { readonly until: number | null; readonly asOf: number }) {
  const onRefused = vi.fn();
  const onState = vi.fn();
  renderHook(() => {
    useLive(LICENCE, state, onRefused, onState);
  });
  return { onRefused, onState };
}

test('a device that was ended before the stream stood goes blank: there is none to tell it', async () => {
  vi.mocked(readerFetch).mockRejectedValue(notProven());
  vi.mocked(readerCall).mockRejectedValue(notProven());
  const { onRefused } = live(ENDLESS);
  await waitFor(() => {
    expect(onRefused).toHaveBeenCalledWith('identity-not-proven', null);
  });
});

test('what changed is asked again where the first question got no answer', async () => {
  vi.mocked(readerFetch).mockImplementation(() => Promise.resolve(changedOnce()));
  vi.mocked(readerCall)
    .mockRejectedValueOnce(unreachable())
    .mockResolvedValue({ outcome: 'refused', reason: 'revoked', at: 1 });
  const { onRefused } = live(ENDLESS);
  await waitFor(() => {
    expect(onRefused).toHaveBeenCalledWith('revoked', 1);
  });
});

test('a server that gives no answer blanks nothing before the end, and everything at it', async () => {
  vi.mocked(readerFetch).mockRejectedValue(unreachable());
  vi.mocked(readerCall).mockRejectedValue(unreachable());
  const until = ENDLESS.asOf + 600;
  const { onRefused } = live({ ...ENDLESS, until });
  await waitFor(() => {
    expect(readerCall).toHaveBeenCalled();
  });
  expect(onRefused).not.toHaveBeenCalled();
  await waitFor(() => {
    expect(onRefused).toHaveBeenCalledWith('expired', until);
  });
});

test('an end that was moved while nothing could be told is asked about at the old one', async () => {
  vi.mocked(readerFetch).mockReturnValue(new Promise(() => undefined));
  vi.mocked(readerCall).mockResolvedValue(goesOn({ until: null }));
  const { onRefused, onState } = live({ ...ENDLESS, until: ENDLESS.asOf + 200 });
  await waitFor(() => {
    expect(onState).toHaveBeenCalledWith(goesOn({ until: null }));
  });
  expect(onRefused).not.toHaveBeenCalled();
});

test('a machine that slept past the end asks when it looks at the clock again', async () => {
  vi.useFakeTimers();
  try {
    vi.mocked(readerFetch).mockReturnValue(new Promise(() => undefined));
    vi.mocked(readerCall).mockResolvedValue({ outcome: 'refused', reason: 'expired', at: 1 });
    const { onRefused } = live({ ...ENDLESS, until: ENDLESS.asOf + 3_600_000 });
    await vi.advanceTimersByTimeAsync(30_000);
    expect(readerCall).not.toHaveBeenCalled();
    vi.setSystemTime(Date.now() + 3_600_000);
    await vi.advanceTimersByTimeAsync(10_000);
    expect(onRefused).toHaveBeenCalledWith('expired', 1);
  } finally {
    vi.useRealTimers();
  }
});

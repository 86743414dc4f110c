'use client';

import { useEffect } from 'react';
import type { LicenceId } from '@/core/base/ids';
import type { RefusalReason, Withheld } from '@/core/policy/decide';
import { readerCall, readerFetch } from '@/ui/reader/reader-call';

type Check = { readonly outcome: 'granted'; readonly until: number | null } | { readonly outcome: 'refused'; readonly reason: RefusalReason | Withheld };

const RECONNECT = 1_000;

/**
 * Keeps a signed event stream open and asks for a fresh decision whenever something changed, when
 * the stream comes back after a break, and when the end is reached.
 */
export function useLive(licence: LicenceId, until: number | null, onRefused: (reason: RefusalReason | Withheld) => void, onUntil: (until: number | null) => void): void {
  useEffect(() => {
    const stop = new AbortController();
    const check = async () => {
      const result = await readerCall<Check>('GET', `/api/v1/reader/licences/${licence}/check`).catch(() => null);
      if (result === null || stop.signal.aborted) return;
      if (result.outcome === 'refused') onRefused(result.reason);
      else onUntil(result.until);
    };
    const listen = async (): Promise<void> => {
      const response = await readerFetch('GET', `/api/v1/reader/licences/${licence}/live`, undefined, stop.signal);
      const reader = response.body?.getReader();
      const decoder = new TextDecoder();
      while (reader !== undefined) {
        const { done, value } = await reader.read();
        if (done) return;
        if (decoder.decode(value, { stream: true }).includes('event: changed')) await check();
      }
    };
    const keepListening = async () => {
      while (!stop.signal.aborted) {
        await listen().catch(() => undefined);
        await new Promise((resolve) => { setTimeout(resolve, RECONNECT); });
      }
    };
    void keepListening();
    return () => { stop.abort(); };
  }, [licence, onRefused, onUntil]);

  useEffect(() => {
    if (until === null) return undefined;
    // Browsers hold timers in 31 bits; an end further off is looked at again by then.
    const timer = setTimeout(() => { void readerCall<Check>('GET', `/api/v1/reader/licences/${licence}/check`).then((result) => { if (result.outcome === 'refused') onRefused(result.reason); }, () => undefined); }, Math.min(Math.max(0, until - Date.now()) + 50, 2 ** 31 - 1));
    return () => { clearTimeout(timer); };
  }, [licence, until, onRefused]);
}

'use client';

import { useEffect } from 'react';
import type { LicenceId } from '@/core/base/ids';
import { CallError } from '@/ui/http/call';
import { readerCall, readerFetch, type ReadingRefusal } from '@/ui/reader/reader-call';

type Check = { readonly outcome: 'granted'; readonly until: number | null } | { readonly outcome: 'refused'; readonly reason: ReadingRefusal };

const RECONNECT = 1_000;

/** Asks whether this open may go on. A device whose time is over may not, until the address is proven again; `null`: no answer. */
async function mayGoOn(licence: LicenceId): Promise<Check | null> {
  try {
    return await readerCall<Check>('GET', `/api/v1/reader/licences/${licence}/check`);
  } catch (error) {
    return error instanceof CallError && error.code === 'NOT_SIGNED_IN' ? { outcome: 'refused', reason: 'identity-not-proven' } : null;
  }
}

/**
 * Keeps a signed event stream open and asks for a fresh decision whenever something changed, when
 * the stream comes back after a break, and when the end is reached.
 */
export function useLive(licence: LicenceId, until: number | null, onRefused: (reason: ReadingRefusal) => void, onUntil: (until: number | null) => void): void {
  useEffect(() => {
    const stop = new AbortController();
    const check = async () => {
      const result = await mayGoOn(licence);
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
    const timer = setTimeout(() => { void mayGoOn(licence).then((result) => { if (result?.outcome === 'refused') onRefused(result.reason); }); }, Math.min(Math.max(0, until - Date.now()) + 50, 2 ** 31 - 1));
    return () => { clearTimeout(timer); };
  }, [licence, until, onRefused]);
}

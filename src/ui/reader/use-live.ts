'use client';

import { useCallback, useEffect } from 'react';
import type { LicenceId } from '@/core/base/ids';
import type { OpenState } from '@/contracts/reader';
import { CallError } from '@/ui/http/call';
import { type OnRefused, type ReadingRefusal } from '@/ui/pages/refused';
import { readerCall, readerFetch } from '@/ui/reader/reader-call';
import { useEnd } from '@/ui/reader/use-end';

type Check =
  | (OpenState & { readonly outcome: 'granted' })
  | { readonly outcome: 'refused'; readonly reason: ReadingRefusal; readonly at: number | null };

const RECONNECT = 1_000;
/** The stream says that it is there every 15 s; what is silent for longer has broken without a word. */
const SILENCE = 40_000;

/**
 * Asks whether this open may go on. A device whose time is over may not, until the address is
 * proven again; `null`: no answer.
 */
async function mayGoOn(licence: LicenceId): Promise<Check | null> {
  try {
    return await readerCall<Check>('GET', `/api/v1/reader/licences/${licence}/check`);
  } catch (error) {
    return error instanceof CallError && error.code === 'NOT_SIGNED_IN'
      ? { outcome: 'refused', reason: 'identity-not-proven', at: null }
      : null;
  }
}

/**
 * Keeps a signed event stream open and asks what this open may do now whenever something changed,
 * when the stream comes back after a break, and when the end is reached: without an answer it is over
 * then.
 */
export function useLive(
  licence: LicenceId,
  { until, asOf }: Pick<OpenState, 'until' | 'asOf'>,
  onRefused: OnRefused,
  onState: (state: OpenState) => void,
): void {
  /** @returns whether there was an answer */
  const check = useCallback(
    async (isOver: () => boolean): Promise<boolean> => {
      const result = await mayGoOn(licence);
      if (result === null) return false;
      if (isOver()) return true;
      if (result.outcome === 'refused') onRefused(result.reason, result.at);
      else onState(result);
      return true;
    },
    [licence, onRefused, onState],
  );

  useEffect(() => {
    const stop = new AbortController();
    const listen = async (): Promise<void> => {
      const broken = new AbortController();
      let silence = setTimeout(() => {
        broken.abort();
      }, SILENCE);
      const response = await readerFetch(
        'GET',
        `/api/v1/reader/licences/${licence}/live`,
        undefined,
        AbortSignal.any([stop.signal, broken.signal]),
      );
      const reader = response.body?.getReader();
      const decoder = new TextDecoder();
      while (reader !== undefined) {
        const { done, value } = await reader.read();
        clearTimeout(silence);
        if (done) return;
        silence = setTimeout(() => {
          broken.abort();
        }, SILENCE);
        if (!decoder.decode(value, { stream: true }).includes('event: changed')) continue;
        if (await check(() => stop.signal.aborted)) continue;
        // A stream that is opened anew has it asked again.
        broken.abort();
        return;
      }
    };
    const keepListening = async () => {
      while (!stop.signal.aborted) {
        // Where the stream is refused, what ended it came before it could be told here.
        await listen().catch(() => check(() => stop.signal.aborted));
        await new Promise((resolve) => {
          setTimeout(resolve, RECONNECT);
        });
      }
    };
    void keepListening();
    return () => {
      stop.abort();
    };
  }, [licence, check]);

  useEnd(until, asOf, (isOver) => {
    void check(isOver).then((isAnswered) => {
      // Nobody has to answer for what the server itself had said.
      if (!isAnswered && !isOver()) onRefused('expired', until);
    });
  });
}

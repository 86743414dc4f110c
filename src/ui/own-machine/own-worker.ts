import type { OwnAnswers, OwnAsked, OwnReply } from '@/contracts/own-machine';

/** What the worker could not do, by its code. */
export class OwnFailure extends Error {
  override readonly name = 'OwnFailure';

  constructor(readonly code: string) {
    super(code);
  }
}

type Asked<K extends OwnAsked['kind']> = Extract<OwnAsked, { readonly kind: K }>;
export type OwnWorker = {
  /** @throws OwnFailure */
  readonly open: (asked: Omit<Asked<'open'>, 'kind' | 'wasm'>) => Promise<OwnAnswers['open']>;
  /** @throws OwnFailure */
  readonly ask: <K extends Exclude<OwnAsked['kind'], 'open'>>(
    asked: Asked<K>,
  ) => Promise<OwnAnswers[K]>;
  readonly end: () => void;
};

type Waiting = {
  readonly resolve: (result: never) => void;
  readonly reject: (failure: OwnFailure) => void;
};

/** PDFium, for a worker. @throws OwnFailure where it cannot be had */
export async function pdfiumBytes(): Promise<ArrayBuffer> {
  const answer = await fetch('/reader/pdfium.wasm');
  if (!answer.ok) throw new OwnFailure('FAILED');
  return answer.arrayBuffer();
}

/** Starts the worker that reads a file on this machine. */
export function startOwnWorker(): OwnWorker {
  const worker = new Worker('/reader/own-machine.js', { type: 'module' });
  const waiting = new Map<number, Waiting>();
  let next = 0;
  worker.onmessage = ({ data }: MessageEvent<OwnReply>) => {
    const asked = waiting.get(data.id);
    waiting.delete(data.id);
    if (data.ok) asked?.resolve(data.result as never);
    else asked?.reject(new OwnFailure(data.code));
  };
  let isBroken = false;
  worker.onerror = () => {
    isBroken = true;
    for (const { reject } of waiting.values()) reject(new OwnFailure('FAILED'));
    waiting.clear();
  };
  const send = <R>(asked: OwnAsked, moved: Transferable[] = []): Promise<R> =>
    new Promise<R>((resolve, reject) => {
      // It may have failed before it was asked anything.
      if (isBroken) {
        reject(new OwnFailure('FAILED'));
        return;
      }
      const id = next++;
      waiting.set(id, { resolve: resolve, reject });
      worker.postMessage({ ...asked, id }, moved);
    });
  return {
    open: async (asked) => {
      const wasm = await pdfiumBytes();
      return send({ ...asked, kind: 'open', wasm }, [wasm]);
    },
    ask: (asked) => send(asked),
    end: () => {
      worker.terminate();
      for (const { reject } of waiting.values()) reject(new OwnFailure('LICENCE_OVER'));
      waiting.clear();
    },
  };
}

import type { OwnAnswers, OwnAsked, OwnReply } from '@/contracts/own-machine';

/** What the worker could not do, by its code. */
export class OwnFailure extends Error {
  override readonly name = 'OwnFailure';

  constructor(readonly code: string) {
    super(code);
  }
}

export type OwnWorker = {
  /** @throws OwnFailure */
  readonly ask: <K extends OwnAsked['kind']>(
    asked: Extract<OwnAsked, { readonly kind: K }>,
  ) => Promise<OwnAnswers[K]>;
  readonly end: () => void;
};

type Waiting = {
  readonly resolve: (result: never) => void;
  readonly reject: (failure: OwnFailure) => void;
};

/** Starts the worker that reads a file on this machine. */
export function startOwnWorker(): OwnWorker {
  const worker = new Worker('/workers/own-machine.js', { type: 'module' });
  const waiting = new Map<number, Waiting>();
  let next = 0;
  worker.onmessage = ({ data }: MessageEvent<OwnReply>) => {
    const asked = waiting.get(data.id);
    waiting.delete(data.id);
    if (data.ok) asked?.resolve(data.result as never);
    else asked?.reject(new OwnFailure(data.code));
  };
  worker.onerror = () => {
    for (const { reject } of waiting.values()) reject(new OwnFailure('FAILED'));
    waiting.clear();
  };
  return {
    ask: (asked) =>
      new Promise((resolve, reject) => {
        const id = next++;
        waiting.set(id, { resolve, reject });
        worker.postMessage({ ...asked, id });
      }),
    end: () => {
      worker.terminate();
      for (const { reject } of waiting.values()) reject(new OwnFailure('LICENCE_OVER'));
      waiting.clear();
    },
  };
}

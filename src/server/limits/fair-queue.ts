import { AppError } from '@/core/base/errors';

/** Somebody asks for more at once than they are given, or everybody together for more than can be done. */
export class BusyError extends AppError<'BUSY'> {
  constructor() {
    super('BusyError', 'BUSY', 'Too much is being asked for at once. Wait a moment and try again.');
  }
}

/** A job that is waited for by somebody; given up by `signal` while it waits, and never once it runs. */
export type FairQueue = <T>(
  who: string,
  job: () => Promise<T>,
  signal?: AbortSignal | null,
) => Promise<T>;

type Bounds = {
  /** Jobs that run at once, of everybody and of one alone. */
  readonly atOnce: number;
  readonly atOnceEach: number;
  /** Jobs that may wait, of everybody and of one alone: what comes on top is turned away before it costs anything. */
  readonly waiting: number;
  readonly waitingEach: number;
};

type Job = { readonly start: () => void };

/**
 * A queue in which everybody takes turns, so that nobody waits for more than one job of each other
 * one, however many they ask for.
 *
 * @throws BusyError where too many wait; the signal's reason where it was given up
 */
export function createFairQueue(bounds: Bounds): FairQueue {
  // A map keeps the order in which keys came: the one who was served goes to its end.
  const waiting = new Map<string, Job[]>();
  const running = new Map<string, number>();
  let total = 0;
  let queued = 0;

  const next = (): void => {
    while (total < bounds.atOnce) {
      const found = [...waiting].find(([who]) => (running.get(who) ?? 0) < bounds.atOnceEach);
      if (found === undefined) return;
      const [who, jobs] = found;
      const job = jobs.shift();
      waiting.delete(who);
      if (jobs.length > 0) waiting.set(who, jobs);
      queued--;
      total++;
      running.set(who, (running.get(who) ?? 0) + 1);
      job?.start();
    }
  };

  const ended = (who: string): void => {
    total--;
    const left = (running.get(who) ?? 1) - 1;
    if (left === 0) running.delete(who);
    else running.set(who, left);
    next();
  };

  return (who, job, signal = null) =>
    new Promise((resolve, reject) => {
      if (signal?.aborted === true) {
        reject(reasonOf(signal));
        return;
      }
      const own = waiting.get(who) ?? [];
      if (queued >= bounds.waiting || own.length >= bounds.waitingEach) {
        reject(new BusyError());
        return;
      }
      const giveUp = (): void => {
        const jobs = waiting.get(who) ?? [];
        const at = jobs.indexOf(entry);
        if (at < 0 || signal === null) return;
        jobs.splice(at, 1);
        if (jobs.length === 0) waiting.delete(who);
        queued--;
        reject(reasonOf(signal));
      };
      const entry: Job = {
        start: () => {
          signal?.removeEventListener('abort', giveUp);
          job()
            .then(resolve, reject)
            .finally(() => {
              ended(who);
            });
        },
      };
      waiting.set(who, [...own, entry]);
      queued++;
      signal?.addEventListener('abort', giveUp, { once: true });
      next();
    });
}

function reasonOf(signal: AbortSignal): Error {
  return signal.reason instanceof Error
    ? signal.reason
    : new Error('Nobody waits for this any more.');
}

import { BusyError } from '@/server/limits/fair-queue';

/**
 * Tells open readers that something about access changed. It says only that: each reader asks for
 * a fresh decision.
 */
export type LiveChanges = {
  /**
   * Calls `listener` when a change names one of these: grant, document, recipient. `by`: who watches.
   *
   * @returns a function that ends it. @throws BusyError where one person, or all together, watch too much
   */
  readonly watch: (names: readonly string[], by: string, listener: () => void) => () => void;
  /** Has everybody look again: the time itself has changed. */
  readonly touch: () => void;
  readonly close: () => void;
};

/** What a change of access names; one that names nothing reaches everybody. */
type Change = readonly (string | null)[];

/** How often the ledger is looked at while anybody watches, in ms: well inside the two seconds promised. */
const INTERVAL = 400;

/** Watches that one person may hold: several devices with several documents open on each. */
const MOST_EACH = 24;
const MOST = 4_000;

/**
 * One look at the ledger serves every reader of this process, and works alike for changes made by
 * other processes on the same database.
 */
export function createLiveChanges(
  lastSequence: () => Promise<number>,
  changesSince: (sequence: number) => Promise<readonly Change[]>,
  onError: (error: unknown) => void,
): LiveChanges {
  const watchers = new Map<string, Set<() => void>>();
  const held = new Map<string, number>();
  let all = 0;
  let seen: number | null = null;
  let timer: NodeJS.Timeout | null = null;

  /** One whose reader is gone in this moment keeps nobody else from being told. */
  const tell = (listeners: ReadonlySet<() => void>): void => {
    for (const listener of listeners)
      try {
        listener();
      } catch (error) {
        onError(error);
      }
  };

  const touch = (): void => {
    tell(new Set([...watchers.values()].flatMap((set) => [...set])));
  };

  const look = async (): Promise<void> => {
    const last = await lastSequence();
    if (seen === null || seen === last) {
      seen = last;
      return;
    }
    const changes = await changesSince(seen);
    seen = last;
    if (changes.some((change) => change.every((name) => name === null))) {
      touch();
      return;
    }
    // One change names several things that a reader watches, and one cut many grants: each is told once.
    const told = new Set<() => void>();
    for (const change of changes)
      for (const name of change)
        if (name !== null) for (const listener of watchers.get(name) ?? []) told.add(listener);
    tell(told);
  };

  const schedule = (): void => {
    timer = setTimeout(() => {
      look()
        .catch(onError)
        .finally(() => {
          if (watchers.size > 0) schedule();
          else stop();
        });
    }, INTERVAL);
    timer.unref();
  };

  const stop = (): void => {
    if (timer !== null) clearTimeout(timer);
    timer = null;
    seen = null;
  };

  return {
    watch: (names, by, listener) => {
      const own = held.get(by) ?? 0;
      if (own >= MOST_EACH || all >= MOST) throw new BusyError();
      held.set(by, own + 1);
      all++;
      let ended = false;
      for (const name of names) watchers.set(name, (watchers.get(name) ?? new Set()).add(listener));
      if (timer === null) {
        lastSequence().then((last) => {
          seen ??= last;
        }, onError);
        schedule();
      }
      return () => {
        if (ended) return;
        ended = true;
        all--;
        const left = (held.get(by) ?? 1) - 1;
        if (left === 0) held.delete(by);
        else held.set(by, left);
        for (const name of names) {
          const set = watchers.get(name);
          set?.delete(listener);
          if (set?.size === 0) watchers.delete(name);
        }
      };
    },
    touch,
    close: () => {
      watchers.clear();
      stop();
    },
  };
}

/** A value with those it was before and those that were undone. */
export type History<T> = {
  readonly past: readonly T[];
  readonly present: T;
  readonly future: readonly T[];
};

/** Steps that can be undone. */
const MOST = 200;

export function historyOf<T>(present: T): History<T> {
  return { past: [], present, future: [] };
}

/** Goes on to a new value; what was undone before cannot be done again. The same value is no step. */
export function commit<T>(history: History<T>, next: T): History<T> {
  if (next === history.present) return history;
  return { past: [...history.past, history.present].slice(-MOST), present: next, future: [] };
}

export function undo<T>(history: History<T>): History<T> {
  const before = history.past.at(-1);
  if (before === undefined) return history;
  return {
    past: history.past.slice(0, -1),
    present: before,
    future: [history.present, ...history.future],
  };
}

export function redo<T>(history: History<T>): History<T> {
  const [next, ...future] = history.future;
  if (next === undefined) return history;
  return { past: [...history.past, history.present], present: next, future };
}

import { WARNINGS, type Warning, type WarningCode } from '@/core/insight/warnings';

/** What is wrong with this process and what it rests on, as of now. */
export type Health = {
  readonly raise: (code: WarningCode, detail?: string) => void;
  readonly clear: (code: WarningCode) => void;
  readonly list: () => readonly Warning[];
};

/** The framework loads modules more than once, and the server in front is none of its modules: they share one state. */
const SHARED = Symbol.for('embargo.health');
type Shared = typeof globalThis & { [SHARED]?: Map<WarningCode, Warning> };

export function createHealth(): Health {
  const raised = new Map<WarningCode, Warning>();
  (globalThis as Shared)[SHARED] = raised;
  return {
    raise: (code, detail = '') => {
      raised.set(code, { code, detail });
    },
    clear: (code) => {
      raised.delete(code);
    },
    list: () => [...raised.values()],
  };
}

/** The state of this process in lines for anyone who watches it, and whether it serves. */
export function healthReport(): { readonly serves: boolean; readonly text: string } {
  const codes = [...((globalThis as Shared)[SHARED]?.keys() ?? [])];
  const serves = !codes.some((code) => WARNINGS[code].grave);
  return { serves, text: `${[serves ? 'ok' : 'not ok', ...codes].join('\n')}\n` };
}

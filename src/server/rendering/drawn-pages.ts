import type { Drawn } from '@/server/rendering/render-task';

/** How much of what many readers share is held, in bytes, and for how long after it was last used, in ms. */
export type HeldLimits = { readonly bytes: number; readonly age: number };

type Held = { readonly drawn: Drawn; usedAt: number };

/** Pages without anybody's mark, in memory only. */
export type DrawnPages = {
  readonly find: (key: string) => Drawn | null;
  readonly hold: (key: string, drawn: Drawn) => void;
  /** Lets go of what nobody used for long. */
  readonly tidy: () => void;
  /** Lets go of everything at once: a key was destroyed. */
  readonly forget: () => void;
};

/** Holds the pages that were used last, within limits. */
export function createDrawnPages({ bytes, age }: HeldLimits, now: () => number): DrawnPages {
  const held = new Map<string, Held>();
  let total = 0;
  const drop = (key: string): void => {
    total -= held.get(key)?.drawn.pixels.byteLength ?? 0;
    held.delete(key);
  };
  const tidy = (): void => {
    for (const [key, { usedAt }] of held) {
      if (total <= bytes && now() - usedAt < age) return;
      drop(key);
    }
  };
  return {
    tidy,
    find: (key) => {
      tidy();
      const found = held.get(key);
      if (found === undefined) return null;
      // Put at the end again: the first is the one that was used longest ago.
      held.delete(key);
      held.set(key, { ...found, usedAt: now() });
      return found.drawn;
    },
    hold: (key, drawn) => {
      drop(key);
      held.set(key, { drawn, usedAt: now() });
      total += drawn.pixels.byteLength;
      tidy();
    },
    forget: () => {
      held.clear();
      total = 0;
    },
  };
}

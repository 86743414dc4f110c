import { hasCode } from '@/core/base/errors';
import { MINUTE } from '@/core/base/time';
import { createDrawnPages } from '@/server/rendering/drawn-pages';
import { ContentError } from '@/core/pages/errors';
import type { Asker } from '@/server/rendering/render-pool';
import type { PageAsked, RenderResults, RenderTask } from '@/server/rendering/render-task';
import { nameOfPlace } from '@/server/storage/open-blob';

/** Pages without marks that are held for others, in memory of this process. */
const HELD = { bytes: 192 << 20, age: 2 * MINUTE };
/** So long after a page took too much, nobody has a thread try it again. */
const NOT_AGAIN = MINUTE;

type Task<K extends RenderTask['kind']> = RenderTask & { readonly kind: K };
type Run<K extends 'page' | 'draw'> = (task: Task<K>, asker: Asker) => Promise<RenderResults[K]>;

type SharedPages = {
  readonly run: Run<'page'>;
  readonly ahead: (page: PageAsked, who: string) => void;
  readonly forget: () => void;
  /** Waits for what is being drawn: a thread that is ended while it draws ends in an error. */
  readonly done: () => Promise<void>;
};

function nameOf({ source, page, width, part }: PageAsked): string {
  const where = part === undefined ? '' : `${String(part.column)},${String(part.row)}`;
  return `${nameOfPlace(source.place)} ${String(page)} ${String(width)} ${where}`;
}

/**
 * Has a page that several are shown drawn once: who asks for it while it is drawn waits for that,
 * and who asks a while later finds it. Marking and encoding it are each one's own.
 */
export function shareDrawn(runPage: Run<'page'>, runDraw: Run<'draw'>): SharedPages {
  const held = createDrawnPages(HELD, Date.now);
  const underWay = new Map<string, Promise<unknown>>();
  const tooMuch = new Map<string, number>();
  setInterval(() => {
    held.tidy();
    for (const [key, until] of tooMuch) if (until < Date.now()) tooMuch.delete(key);
  }, HELD.age).unref();
  const noteTooMuch = (key: string, error: unknown): void => {
    if (hasCode(error, 'PDF_TOO_DEMANDING')) tooMuch.set(key, Date.now() + NOT_AGAIN);
  };
  /** @throws ContentError `PDF_TOO_DEMANDING` where that is known of the page: one try takes a thread for seconds */
  const needBearable = (key: string): void => {
    const until = tooMuch.get(key);
    if (until === undefined) return;
    if (Date.now() < until) throw new ContentError('PDF_TOO_DEMANDING');
    tooMuch.delete(key);
  };
  let generation = 0;
  const hold = async <R extends RenderResults['page' | 'draw']>(
    key: string,
    making: Promise<R>,
  ): Promise<R> => {
    const begun = generation;
    const made = await making;
    // What was drawn before a key was destroyed is not held after it.
    if (made.drawn !== undefined && begun === generation) held.hold(key, made.drawn);
    return made;
  };
  const draw = async <R extends RenderResults['page' | 'draw']>(
    key: string,
    making: Promise<R>,
  ): Promise<R> => {
    underWay.set(key, making);
    try {
      return await hold(key, making);
    } catch (error) {
      noteTooMuch(key, error);
      throw error;
    } finally {
      if (underWay.get(key) === making) underWay.delete(key);
    }
  };
  return {
    run: async (task, asker) => {
      const key = nameOf(task);
      for (let making = underWay.get(key); making !== undefined; making = underWay.get(key)) {
        // Whether it succeeds is for whom it was begun to hear.
        await making.catch(() => undefined);
        asker.signal?.throwIfAborted();
      }
      needBearable(key);
      const drawn = held.find(key);
      if (drawn === null) return draw(key, runPage(task, asker));
      return hold(key, runPage({ ...task, drawn }, asker));
    },
    ahead: (page, who) => {
      const key = nameOf(page);
      if (underWay.has(key) || held.find(key) !== null || tooMuch.has(key)) return;
      // Nobody waits for it: where there is no time for it, or the page is past the end, it is not made.
      draw(key, runDraw({ kind: 'draw', ...page }, { who })).catch(() => undefined);
    },
    done: async () => {
      await Promise.allSettled(underWay.values());
    },
    forget: () => {
      generation++;
      tooMuch.clear();
      held.forget();
    },
  };
}

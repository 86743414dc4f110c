import { existsSync } from 'node:fs';
import path from 'node:path';
import { BroadcastChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { MINUTE, SECOND } from '@/core/base/time';
import { createFairQueue, type FairQueue } from '@/server/limits/fair-queue';
import { createDrawnPages } from '@/server/rendering/drawn-pages';
import { ContentError } from '@/server/rendering/errors';
import {
  FORGET,
  type RenderReply,
  type RenderResults,
  type RenderTask,
} from '@/server/rendering/render-task';
import { nameOfPlace } from '@/server/storage/open-blob';

/** For whom something is drawn, by what they are counted under, and until when they wait for it. */
export type Asker = { readonly who: string; readonly signal?: AbortSignal | null };

/** Draws pages in worker threads. */
export type Renderer = {
  /**
   * @throws ContentError where the content is at fault, or took too long or too much; BusyError
   * where too much is asked for at once; the signal's reason where nobody waits any more
   */
  readonly run: <K extends RenderTask['kind']>(
    task: Extract<RenderTask, { readonly kind: K }>,
    asker: Asker,
  ) => Promise<RenderResults[K]>;
  /** Has every thread let go of the documents and keys it holds. */
  readonly forget: () => void;
  readonly close: () => Promise<void>;
};

/** How long each task may take once it has a thread, in ms. */
const LIMITS: Record<RenderTask['kind'], number> = {
  inspect: 20 * SECOND,
  page: 15 * SECOND,
  text: 10 * SECOND,
  outline: 10 * SECOND,
  find: 10 * SECOND,
  print: 15 * SECOND,
  keep: 5 * MINUTE,
};
/** Pages without marks that are held for others, in memory of this process. */
const HELD = { bytes: 192 << 20, age: 2 * MINUTE };
const MAX_HEAP_MB = 768;
/** A thread that draws makes little garbage of its own: what is large stands outside its heap. */
const MAX_YOUNG_MB = 12;

/**
 * Whether somebody looks at a page while it is made, or something is made for later that gives way;
 * what takes long has a thread of its own.
 */
const PLACES: Record<RenderTask['kind'], 'reading' | 'making' | 'apart'> = {
  inspect: 'making',
  page: 'reading',
  text: 'reading',
  outline: 'reading',
  find: 'making',
  print: 'making',
  keep: 'apart',
};

/**
 * A pool of `threads` worker threads; one that exceeds its time is ended and replaced. Everybody
 * takes turns: nobody has all threads for themselves, what is made for later has one at the most,
 * and what has no one waiting is not begun.
 */
export function createRenderPool(
  workersFolder: string,
  threads: number,
  limits: Record<RenderTask['kind'], number> = LIMITS,
): Renderer {
  const filename = path.resolve(workersFolder, 'render-worker.mjs');
  if (!existsSync(filename)) throw new Error(`The worker ${filename} has not been built.`);
  const options = {
    filename,
    concurrentTasksPerWorker: 1,
    resourceLimits: { maxOldGenerationSizeMb: MAX_HEAP_MB, maxYoungGenerationSizeMb: MAX_YOUNG_MB },
  };
  const pool = new Piscina<RenderTask, RenderReply>({
    ...options,
    minThreads: threads,
    maxThreads: threads,
  });
  const apart = new Piscina<RenderTask, RenderReply>({
    ...options,
    minThreads: 0,
    maxThreads: 1,
    idleTimeout: MINUTE,
  });
  const channel = new BroadcastChannel(FORGET);
  channel.unref();
  const queues: Record<'reading' | 'making' | 'apart', FairQueue> = {
    reading: createFairQueue({
      atOnce: threads,
      atOnceEach: Math.max(1, threads - 1),
      waiting: 2_000,
      waitingEach: 60,
    }),
    making: createFairQueue({ atOnce: 1, atOnceEach: 1, waiting: 500, waitingEach: 20 }),
    apart: createFairQueue({ atOnce: 1, atOnceEach: 1, waiting: 100, waitingEach: 3 }),
  };
  const run = async <K extends RenderTask['kind']>(
    task: Extract<RenderTask, { readonly kind: K }>,
    { who, signal = null }: Asker,
  ): Promise<RenderResults[K]> => {
    const place = PLACES[task.kind];
    const reply = await queues[place](
      who,
      () => runLimited(place === 'apart' ? apart : pool, task, limits[task.kind]),
      signal,
    );
    if (!reply.ok) throw new ContentError(reply.code);
    return reply.result as RenderResults[K];
  };
  const shared = shareDrawn(run);
  return {
    run: async <K extends RenderTask['kind']>(
      task: Extract<RenderTask, { readonly kind: K }>,
      asker: Asker,
    ) => {
      const any: RenderTask = task;
      const result = any.kind === 'page' ? await shared.run(any, asker) : await run(task, asker);
      return result as RenderResults[K];
    },
    forget: () => {
      shared.forget();
      channel.postMessage('forget');
    },
    close: async () => {
      channel.close();
      await Promise.all([pool.destroy(), apart.destroy()]);
    },
  };
}

type Page = RenderTask & { readonly kind: 'page' };
type RunPage = (task: Page, asker: Asker) => Promise<RenderResults['page']>;

function nameOf({ source, page, width, part }: Page): string {
  const where = part === undefined ? '' : `${String(part.column)},${String(part.row)}`;
  return `${nameOfPlace(source.place)} ${String(page)} ${String(width)} ${where}`;
}

/**
 * Has a page that several are shown drawn once: who asks for it while it is drawn waits for that,
 * and who asks a while later finds it. Marking and encoding it are each one's own.
 */
function shareDrawn(run: RunPage): { readonly run: RunPage; readonly forget: () => void } {
  const held = createDrawnPages(HELD, Date.now);
  setInterval(held.tidy, HELD.age).unref();
  const underWay = new Map<string, Promise<unknown>>();
  let generation = 0;
  const draw = async (key: string, task: Page, asker: Asker) => {
    const begun = generation;
    const making = run(task, asker);
    underWay.set(key, making);
    try {
      const { drawn, ...picture } = await making;
      // What was drawn before a key was destroyed is not held after it.
      if (drawn !== undefined && begun === generation) held.hold(key, drawn);
      return picture;
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
      const drawn = held.find(key);
      return drawn === null ? draw(key, task, asker) : run({ ...task, drawn }, asker);
    },
    forget: () => {
      generation++;
      held.forget();
    },
  };
}

async function runLimited(
  pool: Piscina<RenderTask, RenderReply>,
  task: RenderTask,
  limit: number,
): Promise<RenderReply> {
  // The pool's own queue holds a few at the most, of other kinds; waiting there is not the document's fault.
  const queued = (pool.queueSize + 1) * limit;
  try {
    return await pool.run(task, { signal: AbortSignal.timeout(queued) });
  } catch (cause) {
    // Aborted for time, or the thread ended for want of memory.
    throw new ContentError('PDF_TOO_DEMANDING', { cause });
  }
}

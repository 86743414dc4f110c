import { existsSync } from 'node:fs';
import path from 'node:path';
import { BroadcastChannel } from 'node:worker_threads';
import { Piscina } from 'piscina';
import { MINUTE, SECOND } from '@/core/base/time';
import { createFairQueue, type FairQueue } from '@/server/limits/fair-queue';
import type { Office } from '@/server/rendering/office/office-pages';
import { compiledPdfium } from '@/server/rendering/load-pdfium';
import { shareDrawn } from '@/server/rendering/shared-pages';
import { ContentError } from '@/core/pages/errors';
import {
  FORGET,
  type RenderJob,
  type RenderReply,
  type RenderResults,
  type PageAsked,
  type RenderTask,
  type ThreadData,
} from '@/server/rendering/render-task';

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
  /** Draws a page, without anybody's mark, that will be asked for soon; nobody waits for it. */
  readonly ahead: (page: PageAsked, who: string) => void;
  /** Has every thread let go of the documents and keys it holds. */
  readonly forget: () => void;
  readonly close: () => Promise<void>;
};

/** How long each task may take once it has a thread, in ms. */
const LIMITS: Record<RenderTask['kind'], number> = {
  inspect: 20 * SECOND,
  make: MINUTE,
  page: 15 * SECOND,
  draw: 15 * SECOND,
  text: 10 * SECOND,
  outline: 10 * SECOND,
  find: 10 * SECOND,
  print: 15 * SECOND,
  glyphs: 15 * SECOND,
  keep: 5 * MINUTE,
  annotate: 5 * MINUTE,
};
/** Pages that a thread is given at once to mark. */
const MARKED_AT_ONCE = 2;
const MAX_HEAP_MB = 768;
/** A thread that draws makes little garbage of its own: what is large stands outside its heap. */
const MAX_YOUNG_MB = 12;

/**
 * Whether somebody looks at a page while it is made, or something is made for later that gives way;
 * what takes long has a thread of its own, and so has what other programs' files are read by.
 */
type Place = 'marking' | 'reading' | 'making' | 'apart' | 'taking in';
const PLACES: Record<RenderTask['kind'], Place> = {
  inspect: 'making',
  make: 'taking in',
  page: 'reading',
  draw: 'making',
  text: 'reading',
  outline: 'reading',
  find: 'making',
  print: 'making',
  glyphs: 'reading',
  keep: 'apart',
  annotate: 'apart',
};

export type PoolOptions = {
  readonly limits?: Record<RenderTask['kind'], number>;
  /** What makes the pages of some kinds in place of this product; null: nothing. */
  readonly office?: Office | null;
};

/**
 * What was drawn already has only to be marked, which takes a moment: where all threads that draw are
 * at work it does not wait for what may take long.
 */
function placeOf(task: RenderTask, isCrowded: boolean): Place {
  const isMarked = task.kind === 'page' && task.drawn !== undefined;
  return isMarked && isCrowded ? 'marking' : PLACES[task.kind];
}

/**
 * A pool of `threads` worker threads; one that exceeds its time is ended and replaced. Everybody
 * takes turns: nobody has all threads for themselves, what is made for later has one at the most,
 * and what has no one waiting is not begun.
 */
export function createRenderPool(
  workersFolder: string,
  threads: number,
  { limits = LIMITS, office = null }: PoolOptions = {},
): Renderer {
  const filename = path.resolve(workersFolder, 'render-worker.mjs');
  if (!existsSync(filename)) throw new Error(`The worker ${filename} has not been built.`);
  const options = {
    filename,
    concurrentTasksPerWorker: 1,
    resourceLimits: { maxOldGenerationSizeMb: MAX_HEAP_MB, maxYoungGenerationSizeMb: MAX_YOUNG_MB },
  };
  const pdfium = compiledPdfium();
  const pool = new Piscina<RenderJob, RenderReply>({
    ...options,
    minThreads: threads,
    maxThreads: threads,
    workerData: { pdfium, draws: true, office: null } satisfies ThreadData,
  });
  // Each has its next page beside it, so that none waits while the process hands one out. They hold
  // memory of their own, so they are there only while many read at once.
  const marking = new Piscina<RenderJob, RenderReply>({
    ...options,
    minThreads: 0,
    maxThreads: threads,
    idleTimeout: MINUTE,
    concurrentTasksPerWorker: MARKED_AT_ONCE,
    workerData: { pdfium, draws: false, office: null } satisfies ThreadData,
  });
  const aside = { ...options, minThreads: 0, maxThreads: 1, idleTimeout: MINUTE };
  const apart = new Piscina<RenderJob, RenderReply>({
    ...aside,
    workerData: { pdfium, draws: false, office: null } satisfies ThreadData,
  });
  const takingIn = new Piscina<RenderJob, RenderReply>({
    ...aside,
    workerData: { pdfium, draws: false, office } satisfies ThreadData,
  });
  const pools: Record<Place, Piscina<RenderJob, RenderReply>> = {
    marking,
    reading: pool,
    making: pool,
    apart,
    'taking in': takingIn,
  };
  const channel = new BroadcastChannel(FORGET);
  channel.unref();
  const queues: Record<Place, FairQueue> = {
    marking: createFairQueue({
      atOnce: threads * MARKED_AT_ONCE,
      atOnceEach: threads,
      waiting: 2_000,
      waitingEach: 60,
    }),
    reading: createFairQueue({
      atOnce: threads,
      atOnceEach: Math.max(1, threads - 1),
      waiting: 2_000,
      waitingEach: 60,
    }),
    making: createFairQueue({ atOnce: 1, atOnceEach: 1, waiting: 500, waitingEach: 20 }),
    apart: createFairQueue({ atOnce: 1, atOnceEach: 1, waiting: 100, waitingEach: 3 }),
    'taking in': createFairQueue({ atOnce: 1, atOnceEach: 1, waiting: 100, waitingEach: 20 }),
  };
  /** What is drawn, or waits to be, in the threads for it. */
  let drawing = 0;
  const run = async <K extends RenderTask['kind']>(
    task: Extract<RenderTask, { readonly kind: K }>,
    { who, signal = null }: Asker,
  ): Promise<RenderResults[K]> => {
    const place = placeOf(task, drawing >= threads);
    const isDrawing = pools[place] === pool;
    if (isDrawing) drawing++;
    const reply = await queues[place](
      who,
      () => runLimited(pools[place], task, limits[task.kind]),
      signal,
    ).finally(() => {
      if (isDrawing) drawing--;
    });
    if (!reply.ok) throw new ContentError(reply.code);
    return reply.result as RenderResults[K];
  };
  const shared = shareDrawn(run, run);
  return {
    run: async <K extends RenderTask['kind']>(
      task: Extract<RenderTask, { readonly kind: K }>,
      asker: Asker,
    ) => {
      const any: RenderTask = task;
      const result = any.kind === 'page' ? await shared.run(any, asker) : await run(task, asker);
      return result as RenderResults[K];
    },
    ahead: shared.ahead,
    forget: () => {
      shared.forget();
      channel.postMessage('forget');
    },
    close: async () => {
      channel.close();
      await shared.done();
      await Promise.all([...new Set(Object.values(pools))].map((each) => each.destroy()));
    },
  };
}

async function runLimited(
  pool: Piscina<RenderJob, RenderReply>,
  task: RenderTask,
  limit: number,
): Promise<RenderReply> {
  const begun = new BigInt64Array(new SharedArrayBuffer(BigInt64Array.BYTES_PER_ELEMENT));
  const clock = limitedFrom(begun, limit);
  try {
    return await pool.run({ task, begun }, { signal: clock.signal });
  } catch (cause) {
    // Aborted for time, or the thread ended for want of memory.
    const code = task.kind === 'make' ? 'FILE_TOO_DEMANDING' : 'PDF_TOO_DEMANDING';
    throw new ContentError(code, { cause });
  } finally {
    clock.stop();
  }
}

/** How long a task may wait for its thread to start, and for what the pool's own queue holds before it. */
const BEGINS_WITHIN = 2 * MINUTE;

/** Aborts what runs for longer than `limit` ms from the moment it began: neither queue nor start count. */
function limitedFrom(
  begun: BigInt64Array,
  limit: number,
): { readonly signal: AbortSignal; readonly stop: () => void } {
  const aborter = new AbortController();
  const asked = Date.now();
  let timer: NodeJS.Timeout;
  const look = () => {
    const at = Number(Atomics.load(begun, 0));
    const ends = at === 0 ? asked + BEGINS_WITHIN : at + limit;
    const left = ends - Date.now();
    if (left <= 0) aborter.abort();
    else timer = setTimeout(look, Math.min(left, limit));
  };
  timer = setTimeout(look, limit);
  return {
    signal: aborter.signal,
    stop: () => {
      clearTimeout(timer);
    },
  };
}

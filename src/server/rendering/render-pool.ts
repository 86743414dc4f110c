import { existsSync } from 'node:fs';
import path from 'node:path';
import { Piscina } from 'piscina';
import { MINUTE, SECOND } from '@/core/base/time';
import { ContentError } from '@/server/rendering/errors';
import type { RenderReply, RenderResults, RenderTask } from '@/server/rendering/render-task';

/** Draws pages in worker threads. */
export type Renderer = {
  /** @throws ContentError where the content is at fault, or took too long or too much */
  readonly run: <K extends RenderTask['kind']>(task: Extract<RenderTask, { readonly kind: K }>) => Promise<RenderResults[K]>;
  readonly close: () => Promise<void>;
};

/** How long each task may take, in ms, waiting for a free thread not counted. */
const LIMITS: Record<RenderTask['kind'], number> = { inspect: 20 * SECOND, page: 15 * SECOND, text: 10 * SECOND, print: 10 * MINUTE, keep: 5 * MINUTE };
const MAX_HEAP_MB = 768;

/** A pool of `threads` worker threads; one that exceeds its time is ended and replaced. */
export function createRenderPool(workersFolder: string, threads: number, limits: Record<RenderTask['kind'], number> = LIMITS): Renderer {
  const filename = path.resolve(workersFolder, 'render-worker.mjs');
  if (!existsSync(filename)) throw new Error(`The worker ${filename} has not been built.`);
  const pool = new Piscina<RenderTask, RenderReply>({ filename, minThreads: threads, maxThreads: threads, concurrentTasksPerWorker: 1, resourceLimits: { maxOldGenerationSizeMb: MAX_HEAP_MB } });
  return {
    run: async <K extends RenderTask['kind']>(task: Extract<RenderTask, { readonly kind: K }>) => {
      const reply = await runLimited(pool, task, limits[task.kind]);
      if (!reply.ok) throw new ContentError(reply.code);
      return reply.result as RenderResults[K];
    },
    close: () => pool.destroy(),
  };
}

async function runLimited(pool: Piscina<RenderTask, RenderReply>, task: RenderTask, limit: number): Promise<RenderReply> {
  // Time spent waiting behind others is not the document's fault, so the clock allows for the queue.
  const queued = Math.ceil((pool.queueSize + 1) / pool.threads.length) * limit;
  try {
    return await pool.run(task, { signal: AbortSignal.timeout(queued) });
  } catch (cause) {
    // Aborted for time, or the thread ended for want of memory.
    throw new ContentError('PDF_TOO_DEMANDING', { cause });
  }
}

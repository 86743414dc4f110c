import path from 'node:path';
import { Piscina } from 'piscina';
import { CHUNK, TAG, plainSize } from '@/core/age/chunks';
import { AgeError } from '@/core/age/errors';
import { SECOND } from '@/core/base/time';
import { PLAIN_LOT, chunksOf, createLotMemory, inLots } from '@/server/storage/lots';
import {
  becameShorter,
  isStretch,
  sealedFilesHere,
  type Payload,
  type Place,
  type Progress,
  type SealedFiles,
  type Stretch,
} from '@/server/storage/sealed-files';
import {
  COMES,
  LOT,
  SEALED,
  type SealingReply,
  type SealingTask,
} from '@/server/storage/sealing-task';
import { severalAtOnce } from '@/server/storage/several-at-once';
import { syncBehind } from '@/server/storage/sync-behind';

/** What a thread runs, in the folder of the workers. */
export const SEALING_WORKER = 'sealing-worker.mjs';
const THREADS = 2;
/** Lots that a thread has before it: one that it works at, and enough not to wait for the next. */
const BEFORE_EACH = 4;
/** Lots of one file that are at work. */
const AT_WORK = THREADS * BEFORE_EACH;
/** A thread that has had nothing to do for so long ends, in ms. */
const IDLE = 30 * SECOND;
/** A thread makes next to no objects. */
const YOUNG_MB = 2;

type InThread = (task: SealingTask) => Promise<void>;

/** @throws AgeError `DAMAGED`; an error with the code of what the disk said */
function check(reply: SealingReply): void {
  if (reply === null) return;
  if ('damaged' in reply) throw new AgeError('DAMAGED', `chunk ${String(reply.damaged)}`);
  if ('short' in reply) throw becameShorter();
  throw Object.assign(new Error(reply.message), { code: reply.code });
}

/** The threads begin with the first task, and end when there was none for a while. */
function createPool(workersFolder: string): {
  readonly run: InThread;
  readonly close: () => Promise<void>;
} {
  let pool: Piscina<SealingTask, SealingReply> | null = null;
  return {
    run: async (task) => {
      pool ??= new Piscina<SealingTask, SealingReply>({
        filename: path.resolve(workersFolder, SEALING_WORKER),
        minThreads: 0,
        maxThreads: THREADS,
        idleTimeout: IDLE,
        concurrentTasksPerWorker: BEFORE_EACH,
        resourceLimits: { maxYoungGenerationSizeMb: YOUNG_MB },
      });
      check(await pool.run(task));
    },
    close: async () => {
      await pool?.destroy();
    },
  };
}

/**
 * Reads, seals or opens, and writes in worker threads, several lots of chunks at a time: what else
 * the process does goes on meanwhile. What is no longer than a lot stays on the thread that asks,
 * and starts none.
 */
export function createSealingThreads(workersFolder: string): SealedFiles {
  const { run, close } = createPool(workersFolder);
  const memory = createLotMemory(2 * AT_WORK);
  return {
    seal: (payload, source, to) => {
      if (!isStretch(source)) return sealStream(run, memory, payload, source, to);
      return source.length <= PLAIN_LOT
        ? sealedFilesHere.seal(payload, source, to)
        : throughFile(run, 'seal', payload, source, to);
    },
    open: async (key, from, to, progress) => {
      plainSize(from.length);
      await (from.length <= LOT * SEALED
        ? sealedFilesHere.open(key, from, to, progress)
        : throughFile(run, 'open', { key, first: 0, ends: true }, from, to, progress));
    },
    close,
  };
}

/** Neither threads nor the disk are at work on the file any more, whatever went wrong. */
async function end(
  several: ReturnType<typeof severalAtOnce>,
  behind: ReturnType<typeof syncBehind>,
): Promise<void> {
  try {
    await several.over();
  } finally {
    await behind.done();
  }
}

/** From one file into another. Threads read and write themselves. */
async function throughFile(
  run: InThread,
  work: SealingTask['work'],
  { key, first, ends }: Payload,
  from: Stretch,
  to: Place,
  progress: Progress = () => undefined,
): Promise<void> {
  const comes = LOT * COMES[work];
  const goes = LOT * (work === 'seal' ? SEALED : CHUNK);
  const several = severalAtOnce(AT_WORK);
  const behind = syncBehind(to.file);
  let done = 0;
  try {
    for (let lot = 0; lot * comes < from.length; lot++) {
      const bytes = Math.min(comes, from.length - lot * comes);
      const plain = work === 'seal' ? bytes : bytes - Math.ceil(bytes / SEALED) * TAG;
      await several.add(async () => {
        await run({
          work,
          key,
          first: first + lot * LOT,
          ends: ends && (lot + 1) * comes >= from.length,
          bytes,
          from: { fd: from.file.fd, at: from.offset + lot * comes },
          to: { fd: to.file.fd, at: to.offset + lot * goes },
        });
        behind.wrote(bytes);
        done += plain;
        progress(done);
      });
    }
  } finally {
    await end(several, behind);
  }
}

/** What comes as a stream is put where threads see it; they write themselves. */
async function sealStream(
  run: InThread,
  { take, giveBack }: ReturnType<typeof createLotMemory>,
  payload: Payload,
  source: AsyncIterable<Uint8Array>,
  to: Place,
): Promise<void> {
  const { key } = payload;
  const several = severalAtOnce(AT_WORK);
  const behind = syncBehind(to.file);
  let { first } = payload;
  let { offset } = to;
  try {
    for await (const lot of inLots(source, take)) {
      const ends = lot.isLast && payload.ends;
      if (lot.isLast && first === payload.first) {
        await sealedFilesHere.seal({ ...payload, ends }, chunksOf(lot), to);
        return;
      }
      const task: SealingTask = {
        work: 'seal',
        key,
        first,
        ends,
        bytes: lot.bytes,
        from: { shared: lot.memory },
        to: { fd: to.file.fd, at: offset },
      };
      await several.add(async () => {
        await run(task);
        behind.wrote(lot.bytes);
        giveBack(lot.memory);
      });
      first += LOT;
      offset += LOT * SEALED;
    }
  } finally {
    await end(several, behind);
  }
}

'use client';

import { useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import type { FolderId, MarkingId } from '@/core/base/ids';
import { referenceFrom, titleFrom } from '@/core/content/names';
import { lookAtKind } from '@/ui/protecting/file-kind';
import { halfOf, useHalfUploads, type HalfUploadsFound } from '@/ui/protecting/half-uploads';
import { isSameFile, uploadFile, type UploadProgress } from '@/ui/protecting/upload-file';
import { api } from '@/ui/http/api';
import { sentenceOf } from '@/ui/http/call';

/** One file on its way in. */
export type Job = {
  readonly key: number;
  readonly file: File;
  readonly title: string;
  readonly reference: string;
  /** `same`: the file is a document already, and waits to be told that another is meant. */
  readonly state: 'chosen' | 'encrypting' | 'done' | 'failed' | 'same';
  readonly progress: UploadProgress;
  readonly problem: string | null;
  /** What is said of it before it is sent. */
  readonly notice: string | null;
};

/** Where what is taken in sits, what it is marked, and whether the recovery key opens it. */
export type Filed = {
  readonly folderId: FolderId | null;
  readonly markingId: MarkingId | null;
  readonly recoverable: boolean;
};

export type Protecting = {
  readonly jobs: readonly Job[];
  readonly halves: HalfUploadsFound;
  readonly add: (files: readonly File[]) => void;
  readonly change: (key: number, part: Partial<Job>) => void;
  readonly remove: (key: number) => void;
  readonly cancel: (key: number) => void;
  readonly protectAll: (filed: Filed) => Promise<void>;
  /** Makes another document of a file that is one already. */
  readonly protectAgain: (key: number) => Promise<void>;
};

/** Whether a job can still be named otherwise and sent. */
export function isReady({ state }: Job): boolean {
  return state === 'chosen' || state === 'failed';
}

/** Files that are taken in one after another. `taken`: references that are not free. */
export function useProtecting(taken: readonly string[]): Protecting {
  const router = useRouter();
  const [jobs, setJobs] = useState<readonly Job[]>([]);
  const halves = useHalfUploads();
  const nextKey = useRef(1);
  const stops = useRef(new Map<number, AbortController>());
  const lastFiled = useRef<Filed | null>(null);

  const change = (key: number, part: Partial<Job>) => {
    setJobs((all) => all.map((job) => (job.key === key ? { ...job, ...part } : job)));
  };
  const dropHalf = async ({ file }: Job): Promise<void> => {
    const half = halfOf(halves.found, file);
    if (half !== null) await api('DELETE /api/v1/uploads/:id', { id: half.id });
  };
  /** What a file is shows before anything of it is sent. */
  const look = async (key: number, file: File): Promise<void> => {
    const found = await lookAtKind(file);
    change(key, found.fits ? { notice: found.notice } : { problem: found.problem });
  };
  const add = (files: readonly File[]) => {
    const keyed = files.map((file) => ({ file, key: nextKey.current++ }));
    setJobs((all) => {
      const used = new Set([...taken, ...all.map((job) => job.reference)]);
      const added = keyed.map(({ file, key }): Job => {
        const reference = referenceFrom(file.name, used);
        used.add(reference);
        return {
          key,
          file,
          title: titleFrom(file.name),
          reference,
          state: 'chosen',
          progress: { sent: 0, total: file.size },
          problem: null,
          notice: null,
        };
      });
      return [...all, ...added];
    });
    for (const { key, file } of keyed) void look(key, file);
  };
  const protect = async ({ key, file, title, reference, state }: Job, filed: Filed) => {
    const stop = new AbortController();
    stops.current.set(key, stop);
    change(key, { state: 'encrypting', problem: null });
    try {
      await uploadFile(
        file,
        { title, reference, again: state === 'same', ...filed },
        (progress) => {
          change(key, { progress });
        },
        stop.signal,
        halfOf(halves.found, file),
      );
      change(key, { state: 'done' });
      router.refresh();
    } catch (error) {
      change(
        key,
        stop.signal.aborted
          ? { state: 'chosen', progress: { sent: 0, total: file.size } }
          : { state: isSameFile(error) ? 'same' : 'failed', problem: sentenceOf(error) },
      );
    } finally {
      halves.look();
    }
  };
  return {
    jobs,
    halves,
    add,
    change,
    remove: (key) => {
      const job = jobs.find((each) => each.key === key);
      setJobs((all) => all.filter((each) => each.key !== key));
      if (job?.state === 'same') void dropHalf(job).finally(halves.look);
    },
    cancel: (key) => stops.current.get(key)?.abort(),
    protectAgain: async (key) => {
      const job = jobs.find((each) => each.key === key);
      if (job !== undefined && lastFiled.current !== null) await protect(job, lastFiled.current);
    },
    protectAll: async (filed) => {
      lastFiled.current = filed;
      for (const job of jobs) if (isReady(job)) await protect(job, filed);
    },
  };
}

'use client';

import { useRef, useState } from 'react';
import { useRouter } from 'next/navigation';
import type { FolderId, MarkingId } from '@/core/base/ids';
import { referenceFrom, titleFrom } from '@/core/content/names';
import { halfOf, useHalfUploads, type HalfUploadsFound } from '@/ui/protecting/half-uploads';
import { uploadFile, type UploadProgress } from '@/ui/protecting/upload-file';
import { sentenceOf } from '@/ui/http/call';

/** One file on its way in. */
export type Job = {
  readonly key: number;
  readonly file: File;
  readonly title: string;
  readonly reference: string;
  readonly state: 'chosen' | 'encrypting' | 'done' | 'failed';
  readonly progress: UploadProgress;
  readonly problem: string | null;
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

  const change = (key: number, part: Partial<Job>) => {
    setJobs((all) => all.map((job) => (job.key === key ? { ...job, ...part } : job)));
  };
  const add = (files: readonly File[]) => {
    setJobs((all) => {
      const used = new Set([...taken, ...all.map((job) => job.reference)]);
      const added = files.map((file): Job => {
        const reference = referenceFrom(file.name, used);
        used.add(reference);
        return {
          key: nextKey.current++,
          file,
          title: titleFrom(file.name),
          reference,
          state: 'chosen',
          progress: { sent: 0, total: file.size },
          problem: null,
        };
      });
      return [...all, ...added];
    });
  };
  const protect = async ({ key, file, title, reference }: Job, filed: Filed) => {
    const stop = new AbortController();
    stops.current.set(key, stop);
    change(key, { state: 'encrypting', problem: null });
    try {
      await uploadFile(
        file,
        { title, reference, ...filed },
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
          : { state: 'failed', problem: sentenceOf(error) },
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
      setJobs((all) => all.filter((job) => job.key !== key));
    },
    cancel: (key) => stops.current.get(key)?.abort(),
    protectAll: async (filed) => {
      for (const job of jobs) if (isReady(job)) await protect(job, filed);
    },
  };
}

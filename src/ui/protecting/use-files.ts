'use client';

import { useEffect, useRef, useState } from 'react';
import type { DocumentRow, FileLooked } from '@/contracts/document';
import type { MarkingRow } from '@/contracts/marking';
import type { FolderId, MarkingId, UploadId } from '@/core/base/ids';
import { stricterMarking } from '@/core/content/suggest';
import { titleFrom } from '@/core/content/names';
import { MAX_DOCUMENT } from '@/core/content/sizes';
import { HEAD, mediaTypeOf } from '@/core/content/media-types';
import { finishUpload, uploadParts, type UploadProgress } from '@/ui/protecting/upload-file';
import { api } from '@/ui/http/api';
import { sentenceOf } from '@/ui/http/call';

/** A file that becomes a document while somebody goes on with something else. */
export type FileJob = {
  readonly key: number;
  readonly file: File;
  readonly title: string;
  /**
   * `arriving`: it is being encrypted; `looking`: it is opened once to see what it is; `asks`: its
   * marking has to be chosen; `finishing`: it becomes a document.
   */
  readonly state: 'arriving' | 'looking' | 'asks' | 'finishing' | 'failed';
  readonly progress: UploadProgress;
  readonly problem: string | null;
  readonly found: FileLooked | null;
};

export type Files = {
  readonly jobs: readonly FileJob[];
  readonly add: (files: readonly File[]) => void;
  /** Marks it and lets it become a document. */
  readonly mark: (key: number, marking: MarkingId | null) => void;
  readonly again: (key: number) => void;
  readonly remove: (key: number) => void;
};

const fresh = (file: File): Pick<FileJob, 'state' | 'progress' | 'problem'> => ({
  state: 'arriving',
  progress: { sent: 0, total: file.size },
  problem: null,
});

/** Why a file cannot be protected, seen before anything of it is sent; `null`: nothing is seen. */
async function unsuited(file: File): Promise<string | null> {
  if (file.size === 0) return 'This file is empty.';
  if (file.size > MAX_DOCUMENT) return 'This file is larger than 1 GiB.';
  const head = new Uint8Array(await file.slice(0, HEAD).arrayBuffer());
  return mediaTypeOf(head) === null
    ? 'This file is not a PDF. Only PDF files can be protected.'
    : null;
}

/** Where files are put, and how they can be marked. */
type Filing = {
  /** The organisation's markings, the strictest last; none: it marks no documents. */
  readonly markings: readonly MarkingRow[];
  readonly folderId?: FolderId | null;
  /** How documents in that folder are marked where nothing else says so. */
  readonly folderMarking?: MarkingId | null;
};

/**
 * Takes files in at once, one after another: encrypts them, looks what they are, and makes them
 * documents; only where neither the file nor its folder tells how it is to be marked, it waits to be
 * told.
 *
 * @param onDone each document as soon as it is one
 */
export function useFiles(
  { markings, folderId = null, folderMarking = null }: Filing,
  onDone: (document: DocumentRow) => void,
): Files {
  const [jobs, setJobs] = useState<readonly FileJob[]>([]);
  const nextKey = useRef(1);
  const stops = useRef(new Map<number, AbortController>());
  const uploads = useRef(new Map<number, UploadId>());
  const removed = useRef(new Set<number>());
  const queue = useRef<Promise<void>>(Promise.resolve());
  // A file goes where is chosen when it is done, not where was chosen when it was dropped.
  const filing = useRef({ markings, folderId, folderMarking });
  useEffect(() => {
    filing.current = { markings, folderId, folderMarking };
  });

  const change = (key: number, part: Partial<FileJob>): void => {
    setJobs((all) => all.map((job) => (job.key === key ? { ...job, ...part } : job)));
  };
  const drop = (key: number): void => {
    setJobs((all) => all.filter((job) => job.key !== key));
  };
  /** What arrived of a file and is of no use any more. */
  const forget = (key: number): void => {
    const upload = uploads.current.get(key);
    uploads.current.delete(key);
    if (upload !== undefined)
      void api('DELETE /api/v1/uploads/:id', { id: upload }).catch(() => undefined);
  };
  const finish = async (
    key: number,
    { title, reference }: FileLooked,
    markingId: MarkingId | null,
  ): Promise<void> => {
    const upload = uploads.current.get(key);
    if (upload === undefined) return;
    change(key, { state: 'finishing', problem: null });
    try {
      const id = await finishUpload(upload, {
        title,
        reference,
        markingId,
        folderId: filing.current.folderId,
        recoverable: true,
      });
      const { rows } = await api('GET /api/v1/documents', { q: reference, own: 'true' });
      const document = rows.find((each) => each.id === id);
      if (document !== undefined && !removed.current.has(key)) onDone(document);
      drop(key);
    } catch (error) {
      change(key, { state: 'failed', problem: sentenceOf(error) });
    }
  };
  const take = async (job: FileJob): Promise<void> => {
    const { key, file } = job;
    // Removed while it waited for its turn.
    if (removed.current.has(key)) return;
    const stop = new AbortController();
    stops.current.set(key, stop);
    try {
      const upload = await uploadParts(
        file,
        {},
        (progress) => {
          change(key, { progress });
        },
        stop.signal,
      );
      uploads.current.set(key, upload);
      change(key, { state: 'looking' });
      const found = await api('POST /api/v1/uploads/:id/look', { id: upload });
      change(key, { title: found.title, found });
      if (removed.current.has(key)) return;
      const { folderMarking: usual, markings: all } = filing.current;
      const marking = stricterMarking(all, found.marking?.id ?? null, usual);
      if (marking === null && all.length > 0) change(key, { state: 'asks' });
      else await finish(key, found, marking);
    } catch (error) {
      if (stop.signal.aborted) drop(key);
      else change(key, { state: 'failed', problem: sentenceOf(error) });
    }
  };
  /** What cannot be protected says so at once, and not when its turn comes. */
  const begin = async (job: FileJob): Promise<void> => {
    const problem = await unsuited(job.file);
    if (problem !== null) change(job.key, { state: 'failed', problem });
    else queue.current = queue.current.then(() => take(job));
  };
  return {
    jobs,
    add: (files) => {
      const added = files.map((file): FileJob => ({
        key: nextKey.current++,
        file,
        title: titleFrom(file.name),
        found: null,
        ...fresh(file),
      }));
      setJobs((all) => [...all, ...added]);
      for (const job of added) void begin(job);
    },
    mark: (key, marking) => {
      const job = jobs.find((each) => each.key === key);
      if (job?.found != null) void finish(key, job.found, marking);
    },
    again: (key) => {
      const job = jobs.find((each) => each.key === key);
      if (job === undefined) return;
      forget(key);
      change(key, fresh(job.file));
      void begin(job);
    },
    remove: (key) => {
      removed.current.add(key);
      stops.current.get(key)?.abort();
      forget(key);
      drop(key);
    },
  };
}

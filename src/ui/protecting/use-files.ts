'use client';

import { useEffect, useRef, useState } from 'react';
import type { DocumentRow, FileLooked, SameDocument } from '@/contracts/document';
import type { MarkingRow } from '@/contracts/marking';
import type { FolderId, MarkingId, UploadId, VersionId } from '@/core/base/ids';
import { stricterMarking } from '@/core/content/suggest';
import { sameFileWords } from '@/core/content/same-file-words';
import { titleFrom } from '@/core/content/names';
import { MAX_DOCUMENT } from '@/core/content/sizes';
import { lookAtKind } from '@/ui/protecting/file-kind';
import { finishUpload, uploadParts, type UploadProgress } from '@/ui/protecting/upload-file';
import { WrapperError } from '@/core/wrapper/errors';
import { inspectPicked } from '@/ui/files/read-slice';
import { api } from '@/ui/http/api';
import { sentenceOf } from '@/ui/http/call';

/** A file that becomes a document while somebody goes on with something else. */
export type FileJob = {
  readonly key: number;
  readonly file: File;
  readonly title: string;
  /**
   * `arriving`: it is being encrypted; `looking`: it is opened once to see what it is; `asks`: its
   * marking has to be chosen; `finishing`: it becomes a document; `same`: it is a document already;
   * `only-kept`: it cannot be shown, and waits to be told that it is protected all the same.
   */
  readonly state: 'arriving' | 'looking' | 'asks' | 'finishing' | 'failed' | 'same' | 'only-kept';
  readonly progress: UploadProgress;
  readonly problem: string | null;
  readonly found: FileLooked | null;
  /** The document that it is already, where it can be taken instead. */
  readonly same: SameDocument | null;
};

export type Files = {
  readonly jobs: readonly FileJob[];
  readonly add: (files: readonly File[]) => void;
  /** Marks it and lets it become a document. */
  readonly mark: (key: number, marking: MarkingId | null) => void;
  readonly again: (key: number) => void;
  /** Protects what cannot be shown. */
  readonly protectAnyway: (key: number) => void;
  /** Takes the document that a file is already. */
  readonly takeSame: (key: number) => void;
  readonly remove: (key: number) => void;
};

const fresh = (file: File): Pick<FileJob, 'state' | 'progress' | 'problem' | 'same'> => ({
  state: 'arriving',
  progress: { sent: 0, total: file.size },
  problem: null,
  same: null,
});

type Unsuited = Pick<FileJob, 'state' | 'problem' | 'same'>;

const failed = (problem: string): Unsuited => ({ state: 'failed', problem, same: null });

/** Why a file cannot be protected, seen before anything of it is sent; `null`: nothing is seen. */
async function unsuited(file: File): Promise<Unsuited | null> {
  if (file.size === 0) return failed('This file is empty.');
  if (file.size > MAX_DOCUMENT) return failed('This file is larger than 1 GiB.');
  const inside = await protectedIn(file);
  if (inside !== null) return inside;
  const found = await lookAtKind(file);
  if (!found.fits) return failed(found.problem);
  return found.notice === null ? null : { state: 'only-kept', problem: found.notice, same: null };
}

/** What a file is that is a protected file itself, or an age file; `null`: it is neither. */
async function protectedIn(file: File): Promise<Unsuited | null> {
  const inspected = await inspectPicked(file).catch((error: unknown) => {
    if (error instanceof WrapperError && error.code === 'NOT_PROTECTED') return null;
    return 'broken' as const;
  });
  if (inspected === null) return null;
  if (inspected === 'broken' || inspected.stanza === null)
    return failed('This file is encrypted already, but not by this service.');
  const { version, serviceUrl } = inspected.stanza;
  const { found } = await api('POST /api/v1/files/inspect', {
    // The server says of an id that is none that it is not known here.
    version: version as VersionId,
    serviceUrl,
    link: inspected.link,
  });
  if (found === null) return failed('This file is protected already, by another service.');
  const { current, number } = found.version;
  return sameAs({ ...found.document, older: current ? null : number });
}

/** A file that is a document already: that one is taken, unless it is revoked. */
function sameAs(same: SameDocument): Unsuited {
  const problem = sameFileWords(same);
  if (same.revoked) return failed(`${problem} The document is revoked.`);
  return { state: 'same', problem, same };
}

/** The documents somebody may send whose title or reference holds this. */
export async function named(reference: string): Promise<readonly DocumentRow[]> {
  return (await api('GET /api/v1/documents', { q: reference, own: 'true' })).rows;
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
      const document = (await named(reference)).find((each) => each.id === id);
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
      if (found.same !== null) {
        change(key, sameAs(found.same));
        return;
      }
      const { folderMarking: usual, markings: all } = filing.current;
      const marking = stricterMarking(all, found.marking?.id ?? null, usual);
      if (marking === null && all.length > 0) change(key, { state: 'asks' });
      else await finish(key, found, marking);
    } catch (error) {
      if (stop.signal.aborted) drop(key);
      else change(key, { state: 'failed', problem: sentenceOf(error) });
    }
  };
  const takeDocument = async (key: number, { reference }: SameDocument): Promise<void> => {
    try {
      const document = (await named(reference)).find((each) => each.reference === reference);
      if (document === undefined) {
        change(
          key,
          failed(`${reference} is a colleague’s document. Ask them or an administrator.`),
        );
        return;
      }
      forget(key);
      drop(key);
      onDone(document);
    } catch (error) {
      change(key, failed(sentenceOf(error)));
    }
  };
  /** What cannot be protected says so at once, and not when its turn comes. */
  const begin = async (job: FileJob): Promise<void> => {
    const problem = await unsuited(job.file).catch((error: unknown) => failed(sentenceOf(error)));
    if (problem !== null) change(job.key, problem);
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
    takeSame: (key) => {
      const same = jobs.find((each) => each.key === key)?.same;
      if (same != null) void takeDocument(key, same);
    },
    protectAnyway: (key) => {
      const job = jobs.find((each) => each.key === key);
      if (job === undefined) return;
      change(key, fresh(job.file));
      queue.current = queue.current.then(() => take(job));
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

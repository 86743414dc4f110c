import type { LicenceId } from '@/core/base/ids';
import type { KeyTaken } from '@/contracts/own-machine';
import type { OpenResult } from '@/contracts/reader';
import { keepLicence } from '@/ui/own-machine/kept-licences';
import { RefusedError } from '@/ui/pages/refused';
import type { PageSource } from '@/ui/pages/page-source';
import { boxKeyPair } from '@/ui/own-machine/box-key';
import { openSource } from '@/ui/reader/open-source';
import { OwnFailure, startOwnWorker, type OwnWorker } from '@/ui/own-machine/own-worker';
import type { PickedFile } from '@/ui/reader/picked-file';
import { readerFetch } from '@/ui/reader/reader-call';

/** A file that is read on this machine. */
export type OwnReading = {
  readonly source: PageSource;
  readonly pages: number;
  readonly end: () => void;
};

/** What is over has to be asked for anew. */
async function inTime<R>(asked: Promise<R>): Promise<R> {
  try {
    return await asked;
  } catch (error) {
    if (error instanceof OwnFailure && error.code === 'LICENCE_OVER')
      throw new RefusedError('open-again', null);
    throw error;
  }
}

function pagesOf({ ask }: OwnWorker, licence: LicenceId): PageSource {
  const { noteCopied, noteReading } = openSource(licence);
  return {
    picture: async (wanted, signal) => {
      const { blob, points } = await inTime(ask({ kind: 'picture', wanted }));
      signal.throwIfAborted();
      return { url: URL.createObjectURL(blob), points };
    },
    text: (page) => inTime(ask({ kind: 'text', page })),
    outline: () => inTime(ask({ kind: 'outline' })),
    find: (words, from) => inTime(ask({ kind: 'find', words, from })),
    noteCopied,
    noteReading,
  };
}

/** Keeps the licence, and the reader itself, so that the file opens without a connection. */
async function keepForLater(
  opened: OpenResult & { readonly outcome: 'granted' },
  taken: KeyTaken,
): Promise<void> {
  if (taken.offlineUntil === null) return;
  const { title, reference, sender, address, captureDeterrent, readingAids, rights } = opened;
  const aids = readingAids ? 'aids' : 'nothing';
  await keepLicence({
    licence: opened.licence,
    version: opened.version,
    taken,
    now: taken.now,
    deviceNow: Date.now(),
    lastSeen: taken.now,
    offlineUntil: taken.offlineUntil,
    about: {
      title,
      reference,
      sender: sender.name,
      organisation: sender.organisation,
      address,
      mayHaveText: rights.copy.granted ? 'copying' : aids,
      captureDeterrent,
      mayComment: rights.comment.granted,
      document: opened.document,
    },
  });
  await navigator.serviceWorker.register('/reader-worker.js', { scope: '/r' });
}

/**
 * Takes the key for a picked file and opens it here: its pages are decrypted, drawn and marked in a
 * worker of this browser.
 *
 * @throws RefusedError, CallError, OwnFailure
 */
export async function openHere(
  opened: OpenResult & { readonly outcome: 'granted' },
  { file, version }: PickedFile,
): Promise<OwnReading> {
  const { licence } = opened;
  const { boxKey, privateKey } = await boxKeyPair();
  const path = `/api/v1/reader/licences/${licence}/key`;
  const answer = await readerFetch('POST', path, { version, boxKey }, null);
  const taken = (await answer.json()) as KeyTaken;
  const worker = startOwnWorker();
  try {
    const { pages } = await worker.open({ file, taken, boxKey, privateKey, now: taken.now });
    if (opened.kept && taken.offlineUntil !== null) await keepForLater(opened, taken);
    return { source: pagesOf(worker, licence), pages, end: worker.end };
  } catch (error) {
    worker.end();
    throw error;
  }
}

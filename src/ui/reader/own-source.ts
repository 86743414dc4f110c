import type { LicenceId } from '@/core/base/ids';
import type { KeyTaken, PermitGiven } from '@/contracts/own-machine';
import type { OpenResult } from '@/contracts/reader';
import { saveFile } from '@/ui/http/take-download';
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
  readonly copies: OwnCopies;
  readonly end: () => void;
};

/** Copies that are made here of what is open; counted and written down by the service first. */
type OwnCopies = {
  /** Saves a marked copy to print. @throws RefusedError, CallError, OwnFailure */
  readonly print: (from: number, to: number) => Promise<void>;
  /** The same in the clear. @returns whether it bears the watermark. @throws as above */
  readonly keep: () => Promise<boolean>;
};

type Granted = OpenResult & { readonly outcome: 'granted' };

async function permitFor(
  { licence }: Granted,
  what: 'print-here' | 'keep-here',
  body: object,
): Promise<PermitGiven> {
  const path = `/api/v1/reader/licences/${licence}/${what}`;
  const answer = await readerFetch('POST', path, body, null);
  return (await answer.json()) as PermitGiven;
}

function copiesOf({ ask }: OwnWorker, opened: Granted): OwnCopies {
  return {
    print: async (from, to) => {
      const { permit, glyphs, name } = await permitFor(opened, 'print-here', { from, to });
      const { title } = opened;
      const { blob } = await inTime(ask({ kind: 'print', permit, glyphs, title }));
      saveFile(new File([blob], name));
    },
    keep: async () => {
      const { permit, glyphs, name } = await permitFor(opened, 'keep-here', {});
      const { blob, marked } = await inTime(ask({ kind: 'keep', permit, glyphs }));
      saveFile(new File([blob], name));
      return marked;
    },
  };
}

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
async function keepForLater(opened: Granted, taken: KeyTaken): Promise<void> {
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
  opened: Granted,
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
    const copies = copiesOf(worker, opened);
    return { source: pagesOf(worker, licence), pages, copies, end: worker.end };
  } catch (error) {
    worker.end();
    throw error;
  }
}

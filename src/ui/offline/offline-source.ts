import type { PageSource } from '@/ui/pages/page-source';
import { timeWithoutService } from '@/core/own-machine/kept-licence';
import { boxKeyPair } from '@/ui/own-machine/box-key';
import { beginOpen, noteRead, type KeptLicence } from '@/ui/own-machine/kept-licences';
import { OwnFailure, startOwnWorker } from '@/ui/own-machine/own-worker';

export type OfflineReading = {
  readonly source: PageSource;
  readonly pages: number;
  readonly kept: KeptLicence;
  readonly end: () => void;
};

/**
 * Opens a file without a connection: it is written down first, and where that cannot be, nothing is
 * opened.
 *
 * @throws OwnMachineError `CLOCK_BACK`, `LICENCE_OVER`; OwnFailure
 */
export async function openOffline(kept: KeptLicence, file: File): Promise<OfflineReading> {
  const now = timeWithoutService(kept, Date.now());
  const { boxKey, privateKey } = await boxKeyPair();
  const worker = startOwnWorker();
  try {
    const { pages } = await worker.open({ file, taken: kept.taken, boxKey, privateKey, now });
    let open = await beginOpen(kept, now).catch(() => {
      throw new OwnFailure('NOT_KEPT');
    });
    const { ask, end } = worker;
    const source: PageSource = {
      picture: async (wanted, signal) => {
        const { blob, points } = await ask({ kind: 'picture', wanted });
        signal.throwIfAborted();
        return { url: URL.createObjectURL(blob), points };
      },
      text: (page) => ask({ kind: 'text', page }),
      outline: () => ask({ kind: 'outline' }),
      find: (words, from) => ask({ kind: 'find', words, from }),
      // Nothing is told to anybody now, so it is kept at once.
      tellsEvery: 1,
      noteCopied: () => Promise.resolve(),
      noteReading: async (seen) => {
        open = await noteRead(kept, open, seen, timeWithoutService(kept, Date.now()));
      },
    };
    return { source, pages, kept, end };
  } catch (error) {
    worker.end();
    throw error;
  }
}

import type { SeenAs } from '@/contracts/explain';
import type { FoundPage, OutlineLine, TextPiece } from '@/contracts/reader';
import { call, toCallError } from '@/ui/http/call';
import {
  pictureOf,
  picturePath,
  type LoadedPicture,
  type PageSource,
} from '@/ui/pages/page-source';

/** Who a document is shown as, and under which circumstances. */
export type ShownFor = Pick<SeenAs, 'person' | 'watermark'> & {
  readonly at: number | null;
  readonly network: string | null;
};

/** What a check reads of a document beside its pictures. */
function checkedParts(base: string): Omit<PageSource, 'picture'> {
  return {
    text: async (page) => {
      const path = `${base}/check/pages/${String(page)}/text`;
      return (await call<{ readonly runs: readonly TextPiece[] }>('GET', path)).runs;
    },
    outline: async () =>
      (await call<{ readonly outline: readonly OutlineLine[] }>('GET', `${base}/check/outline`))
        .outline,
    find: (words, from) =>
      call<{ readonly found: readonly FoundPage[]; readonly next: number | null }>(
        'POST',
        `${base}/check/find`,
        { words, from },
      ),
    // Nothing that is done in a check is anybody's reading.
    noteCopied: () => Promise.resolve(),
    noteReading: () => Promise.resolve(),
  };
}

async function needPicture(response: Response): Promise<LoadedPicture> {
  if (!response.ok) throw await toCallError(response);
  return pictureOf(response);
}

/** The pages of a document as somebody would see them: a check, which counts for nobody. */
export function checkSource(
  document: string,
  { person, watermark, at, network }: ShownFor,
): PageSource {
  const base = `/api/v1/documents/${document}`;
  return {
    ...checkedParts(base),
    picture: async (wanted, signal) =>
      needPicture(
        await fetch(`${base}/preview`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ ...wanted, ...person, watermark, at, network }),
          signal,
        }),
      ),
  };
}

/** The pages of a document as who answers for it checks them. */
export function ownCheckSource(document: string): PageSource {
  const base = `/api/v1/documents/${document}`;
  return {
    ...checkedParts(base),
    picture: async (wanted, signal) =>
      needPicture(await fetch(`${base}/check${picturePath(wanted)}`, { signal })),
  };
}

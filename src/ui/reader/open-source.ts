import type { LicenceId } from '@/core/base/ids';
import type { FoundPage, OutlineLine, TextPiece } from '@/contracts/reader';
import { pictureOf, picturePath, type PageSource } from '@/ui/pages/page-source';
import { readerFetch } from '@/ui/reader/reader-call';

/** The pages of an open, every request signed with this browser's key. */
export function openSource(licence: LicenceId): PageSource {
  const base = `/api/v1/reader/licences/${licence}`;
  const get = (path: string, signal: AbortSignal | null) =>
    readerFetch('GET', `${base}${path}`, undefined, signal);
  const post = (path: string, body: unknown, signal: AbortSignal | null, keepalive = false) =>
    readerFetch('POST', `${base}${path}`, body, signal, keepalive);
  return {
    picture: async (wanted, signal) => pictureOf(await get(picturePath(wanted), signal)),
    text: async (page, signal) => {
      const answer = await get(`/pages/${String(page)}/text`, signal);
      return ((await answer.json()) as { readonly runs: readonly TextPiece[] }).runs;
    },
    outline: async () => {
      const answer = await get('/outline', null);
      return ((await answer.json()) as { readonly outline: readonly OutlineLine[] }).outline;
    },
    find: async (words, from, signal) => {
      const answer = await post('/find', { words, from }, signal);
      return (await answer.json()) as {
        readonly found: readonly FoundPage[];
        readonly next: number | null;
      };
    },
    noteCopied: async (page, characters) => {
      await post(`/pages/${String(page)}/copied`, { characters }, null);
    },
    noteReading: async (pages) => {
      await post('/reading', { pages }, null, true);
    },
  };
}

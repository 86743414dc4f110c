import type { MediaType } from '@/core/content/media-types';
import type { PageEngine } from '@/server/rendering/page-source';
import { pdfEngine } from '@/server/rendering/pdf-engine';

/** What draws each kind of file. */
const ENGINES: Readonly<Record<MediaType, () => PageEngine>> = { 'application/pdf': pdfEngine };

/** The engines of one worker thread, each made when it is first needed. */
export function createPageEngines(): {
  readonly of: (mediaType: MediaType) => PageEngine;
  /** Makes all anew: after a crash an engine's memory is not to be trusted. */
  readonly drop: () => void;
} {
  const made = new Map<MediaType, PageEngine>();
  return {
    of: (mediaType) => {
      const engine = made.get(mediaType) ?? ENGINES[mediaType]();
      made.set(mediaType, engine);
      return engine;
    },
    drop: () => {
      made.clear();
    },
  };
}

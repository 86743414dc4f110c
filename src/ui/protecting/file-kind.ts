import { HEAD, isCalledPdf, mediaTypeOf, pagesFrom } from '@/core/content/media-types';
import { NOT_SHOWN } from '@/ui/words/pages-words';

/** What is known of a file before anything of it is sent. */
export type FileKindFound =
  | {
      readonly fits: true;
      /** What to say of one that can only be kept. */ readonly notice: string | null;
    }
  | { readonly fits: false; readonly problem: string };

const KEPT = 'It can be protected, and those who may keep a copy get it as it is.';

/** Looks at the beginning of a file: whether it is what its name says, and whether it can be shown. */
export async function lookAtKind(file: File): Promise<FileKindFound> {
  const head = new Uint8Array(await file.slice(0, HEAD).arrayBuffer());
  const kind = mediaTypeOf(head, file.name);
  if (kind === null)
    return {
      fits: false,
      problem: `This file is not ${isCalledPdf(file.name) ? 'a PDF' : 'what its name says'}.`,
    };
  const notice = pagesFrom(kind) === 'none' ? `${NOT_SHOWN} ${KEPT}` : null;
  return { fits: true, notice };
}

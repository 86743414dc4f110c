import type { DocumentId } from '@/core/base/ids';

/** Where a message names titles, and whose they are. */
export type TitlesIn = {
  readonly where: 'subject' | 'note';
  readonly documents: readonly DocumentId[];
};

type Titled = { readonly id: DocumentId; readonly title: string };

/** Words alone, so that another spacing or another dash hides nothing. */
function plain(text: string): string {
  return ` ${text
    .toLowerCase()
    .replaceAll(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()} `;
}

/**
 * The documents whose titles a message names, where its mail would hold them. The subject comes
 * first: it stands in the mail whatever becomes of the note.
 *
 * @param hidden the documents whose markings keep titles out of mail
 */
export function titlesInMail(
  hidden: readonly Titled[],
  { subject, note }: { readonly subject: string; readonly note: string },
): TitlesIn | null {
  for (const [where, text] of [
    ['subject', plain(subject)],
    ['note', plain(note)],
  ] as const) {
    const named = hidden.filter(({ title }) => {
      const words = plain(title);
      return words.trim() !== '' && text.includes(words);
    });
    if (named.length > 0) return { where, documents: named.map(({ id }) => id) };
  }
  return null;
}

import 'server-only';
import type { Language } from '@/core/base/languages';
import type { Reading, Transaction } from '@/server/db/database';
import { listMarkings } from '@/server/repositories/documents/filing-repository';
import { hiddenTitle } from '@/server/mail/subjects';
import type { MarkingId } from '@/core/base/ids';

/** What of a document its name in mail depends on. */
export type Titled = {
  readonly title: string;
  readonly reference: string;
  readonly markingId: MarkingId | null;
};

/** What markings have said in mail that brings these documents, each once, in the order of markings. */
export async function markingWords(
  db: Reading | Transaction,
): Promise<(documents: readonly Pick<Titled, 'markingId'>[]) => string[]> {
  const worded = (await listMarkings(db)).filter(({ mailWords }) => mailWords !== '');
  return (documents) =>
    worded
      .filter(({ id }) => documents.some(({ markingId }) => markingId === id))
      .map(({ mailWords }) => mailWords);
}

/** What documents are called in mail: those whose marking hides titles, by their reference alone. */
export async function mailTitles(
  db: Reading | Transaction,
): Promise<(document: Titled, language: Language) => string> {
  const hiding = new Set(
    (await listMarkings(db)).filter(({ hidesTitles }) => hidesTitles).map(({ id }) => id),
  );
  return ({ title, reference, markingId }, language) =>
    markingId !== null && hiding.has(markingId) ? hiddenTitle(reference, language) : title;
}

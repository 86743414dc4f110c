import 'server-only';
import type { DocumentId } from '@/core/base/ids';
import { wayText } from '@/core/content/folders';
import type { Subject } from '@/core/policy/levels';
import type { Reading, Transaction } from '@/server/db/database';
import { findDocuments } from '@/server/repositories/documents/document-repository';
import { listFolders, listMarkings } from '@/server/repositories/documents/filing-repository';
import { ServiceError } from '@/server/services/base/errors';

export function sameSubject(a: Subject, b: Subject): boolean {
  return a.level === b.level && a.subject === b.subject;
}

/** Answers what a level's subject is called. */
export async function subjectNames(
  db: Reading | Transaction,
  documents: readonly DocumentId[],
): Promise<(of: Subject) => string | null> {
  const [markings, folders, named] = await Promise.all([
    listMarkings(db),
    listFolders(db),
    documents.length === 0 ? [] : findDocuments(db, documents),
  ]);
  return ({ level, subject }) => {
    if (level === 'organisation') return 'the organisation';
    if (level === 'marking') return markings.find(({ id }) => id === subject)?.name ?? null;
    const folder = folders.find(({ id }) => id === subject);
    if (level === 'folder') return folder === undefined ? null : wayText(folders, folder.id);
    return named.find(({ id }) => id === subject)?.title ?? null;
  };
}

/** What a level's subject is called. @throws ServiceError `NOT_FOUND` */
export async function needSubject(db: Reading | Transaction, input: Subject): Promise<string> {
  const name = (
    await subjectNames(db, input.level === 'document' ? [input.subject as DocumentId] : [])
  )(input);
  if (name === null || (input.level === 'organisation' && input.subject !== ''))
    throw new ServiceError('no-level-subject', { level: input.level });
  return name;
}

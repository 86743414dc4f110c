import 'server-only';
import type { DocumentId } from '@/core/base/ids';
import { passagesOf } from '@/core/content/passages';
import { reaches } from '@/core/policy/permissions';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { ContentError } from '@/core/pages/errors';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { recordAlone } from '@/server/services/base/record';
import { payloadKeyOf, sealedPages, sealedSource } from '@/server/services/documents/sealed-source';

/** Pages looked at of one document, and of all together: a note quotes from the beginning, if at all. */
const PAGES_EACH = 40;
const PAGES_IN_ALL = 400;

/**
 * The first of some documents of one's own that a text quotes at length; `null`: none. A document
 * without text, or one that nobody can open any more, is quoted by nobody, and whether somebody
 * else's is quoted is nobody's to find out.
 */
export async function quotedDocument(
  deps: Deps,
  actor: StaffActor,
  documents: readonly DocumentId[],
  text: string,
): Promise<{ readonly title: string } | null> {
  const passages = passagesOf(text);
  if (!passages.isLong) return null;
  let pagesLeft = PAGES_IN_ALL;
  for (const id of documents) {
    const found = await findDocument(deps.db.read, id);
    if (found === null || !isReadable(actor, found)) continue;
    const pages = Math.min(found.version.pages, PAGES_EACH, pagesLeft);
    pagesLeft -= pages;
    if (passages.isIn(await textOf(deps, actor, found, pages))) return found.document;
  }
  return null;
}

function isReadable(actor: StaffActor, { document, version }: Found): boolean {
  const isOwn = reaches(actor, { owner: document.ownerId, deputy: document.deputyId });
  const isReadable = version.wrappedKey !== null && version.damagedAt === null && !version.isLocal;
  return isOwn && isReadable;
}

type Found = NonNullable<Awaited<ReturnType<typeof findDocument>>>;

/** What the first pages say. That the key was used is on the ledger. */
async function textOf(
  deps: Deps,
  actor: StaffActor,
  { document, version }: Found,
  pages: number,
): Promise<string> {
  if (version.wrappedKey === null) return '';
  const sealed = sealedPages(version);
  const { wrappedKey: wrapped, keyGeneration: generation } = version;
  const key = payloadKeyOf(deps, sealed, deps.vault.unwrap({ wrapped, generation }, version.id));
  const source = sealedSource(deps, sealed, key);
  try {
    const words: string[] = [];
    // One after the other: readers come first.
    for (let page = 1; page <= pages; page++) {
      const runs = await deps.renderer.run({ kind: 'text', source, page }, { who: actor.id });
      words.push(...runs.map((run) => run.text));
    }
    return words.join(' ');
  } catch (error) {
    if (error instanceof ContentError) return '';
    throw error;
  } finally {
    key.fill(0);
    await recordAlone(deps, {
      action: 'key.unwrapped',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      document: document.id,
      version: version.id,
      details: { for: 'comparing-the-note' },
    });
  }
}

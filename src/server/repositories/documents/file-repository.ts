import 'server-only';
import { and, eq, isNull, sql } from 'drizzle-orm';
import type { DispatchId, DocumentId, RecipientId, VersionId } from '@/core/base/ids';
import type { Reading, Transaction } from '@/server/db/database';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents, markings, versions } from '@/server/db/schema/documents';
import { grants, links } from '@/server/db/schema/access';
import { organisation } from '@/server/db/schema/organisation';
import { recipients } from '@/server/db/schema/people';
import { staff } from '@/server/db/schema/staff';

export type FileFacts = NonNullable<Awaited<ReturnType<typeof findFileFacts>>>;
export type SharedFileFacts = Omit<FileFacts, 'recipient' | 'grantId'>;

/**
 * What a protected file for one person of a dispatch says and carries: the version named, or the
 * document's current one.
 */
export function findFileFacts(
  db: Reading | Transaction,
  of: Carried & { readonly recipient: RecipientId },
) {
  return findFacts(db, of);
}

/** The same for a file made for everybody a dispatch was sent to, whose link there is. */
export async function findSharedFileFacts(
  db: Reading | Transaction,
  of: Carried,
): Promise<SharedFileFacts | null> {
  const found = await findFacts(db, { ...of, recipient: null });
  if (found === null) return null;
  const { recipient: _anyone, grantId: _theirs, ...facts } = found;
  return facts;
}

type Carried = { readonly dispatch: DispatchId } & (
  { readonly document: DocumentId } | { readonly version: VersionId }
);

async function findFacts(
  db: Reading | Transaction,
  of: Carried & { readonly recipient: RecipientId | null },
) {
  const [row] = await db
    .select({
      dispatch: dispatches,
      sender: staff.name,
      senderAddress: staff.email,
      recipient: recipients,
      document: documents,
      version: versions,
      token: links.token,
      linkOffAt: links.offAt,
      grantId: grants.id,
      organisation: organisation.name,
      hidesTitles: sql<boolean>`coalesce(${markings.hidesTitles}, 0) = 1`.mapWith(Boolean),
    })
    .from(grants)
    .innerJoin(dispatches, eq(dispatches.id, grants.dispatchId))
    .innerJoin(staff, eq(staff.id, dispatches.sentBy))
    .innerJoin(recipients, eq(recipients.id, grants.recipientId))
    .innerJoin(documents, eq(documents.id, grants.documentId))
    .innerJoin(
      versions,
      'version' in of
        ? and(eq(versions.documentId, documents.id), eq(versions.id, of.version))
        : eq(versions.id, documents.versionId),
    )
    .innerJoin(
      links,
      and(
        eq(links.dispatchId, grants.dispatchId),
        of.recipient === null
          ? isNull(links.recipientId)
          : eq(links.recipientId, grants.recipientId),
      ),
    )
    .leftJoin(markings, eq(markings.id, documents.markingId))
    .innerJoin(organisation, eq(organisation.id, 1))
    .where(
      and(
        eq(grants.dispatchId, of.dispatch),
        of.recipient === null ? undefined : eq(grants.recipientId, of.recipient),
        'document' in of ? eq(grants.documentId, of.document) : undefined,
      ),
    )
    .limit(1);
  return row ?? null;
}

/** A version by its id, with its document. */
export async function findVersion(db: Reading, id: VersionId) {
  const [row] = await db
    .select({ document: documents, version: versions })
    .from(versions)
    .innerJoin(documents, eq(documents.id, versions.documentId))
    .where(eq(versions.id, id));
  return row ?? null;
}

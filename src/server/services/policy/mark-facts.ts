import 'server-only';
import type { Moment } from '@/core/base/time';
import { fillLayers, type Watermark } from '@/core/watermark/layers';
import { markValues, type OpenFacts } from '@/core/watermark/mark-values';
import type { Reading, Transaction } from '@/server/db/database';
import type { findDocument } from '@/server/repositories/documents/document-repository';
import { folderAndMarking } from '@/server/repositories/documents/filing-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';

type Found = NonNullable<Awaited<ReturnType<typeof findDocument>>>;

/** What a watermark can say of the person and of the way they came; the document says the rest itself. */
export type OpenerFacts = Pick<
  OpenFacts,
  'name' | 'address' | 'organisation' | 'network' | 'device' | 'dispatch'
>;

/**
 * A watermark as it stands on the pages of one document that one person opens at a moment. The page
 * and the number of a copy are left open until they are known.
 */
export async function filledFor(
  db: Reading | Transaction,
  watermark: Watermark,
  { document, version }: Found,
  opener: OpenerFacts,
  at: Moment,
): Promise<Watermark> {
  const [organisation, filed] = await Promise.all([
    findOrganisation(db),
    folderAndMarking(db, document),
  ]);
  const facts: OpenFacts = {
    ...opener,
    title: document.title,
    reference: document.reference,
    version: `version ${String(version.number)}`,
    marking: filed.marking,
    folder: filed.folder,
    attributes: document.attributes,
  };
  return fillLayers(watermark, (zone) =>
    markValues(facts, at, zone ?? organisation?.zone ?? 'UTC'),
  );
}

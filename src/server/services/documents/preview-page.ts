import 'server-only';
import type { PreviewPageInput } from '@/contracts/explain';
import { watermarkUnder } from '@/core/policy/defaults';
import { previewMark } from '@/core/watermark/check-mark';
import { markValues } from '@/core/watermark/mark-values';
import { fillTokens } from '@/core/watermark/tokens';
import type { PagePicture } from '@/server/rendering/render-task';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { drawChecked } from '@/server/services/documents/check-document';
import { defaultsFinder } from '@/server/services/policy/manage-defaults';

/**
 * The first page of a document as somebody would see it, with the watermark of what is composed. It
 * says that it is a preview and who looks, so that it cannot pass for a page that was sent.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function previewPage(
  deps: Deps,
  actor: StaffActor,
  { id, width, watermark, at, network, ...person }: PreviewPageInput,
): Promise<PagePicture> {
  const [found, organisation, defaultsOf] = await Promise.all([
    findDocument(deps.db.read, id),
    findOrganisation(deps.db.read),
    defaultsFinder(deps.db.read),
  ]);
  if (found === null) throw new ServiceError('no-document');
  const { document } = found;
  const around = defaultsOf({
    document: document.id,
    marking: document.markingId,
    folder: document.folderId,
  });
  const text = fillTokens(
    watermarkUnder(watermark, around),
    markValues(
      { ...person, reference: document.reference, network: network ?? '192.0.2.14' },
      at ?? deps.clock.now(),
      organisation?.zone ?? 'UTC',
    ),
  );
  return drawChecked(deps, actor, {
    id,
    page: 1,
    width,
    watermark: [text, previewMark(actor.name)].filter((part) => part !== '').join(' · '),
  });
}

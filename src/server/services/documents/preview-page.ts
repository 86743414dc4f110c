import 'server-only';
import type { PreviewPageInput } from '@/contracts/explain';
import { watermarkUnder } from '@/core/policy/defaults';
import { deviceLabel } from '@/core/insight/device-label';
import { previewMark } from '@/core/watermark/check-mark';
import { fillLayers } from '@/core/watermark/layers';
import { sizeAsked } from '@/core/pages/page-source';
import { findDocument } from '@/server/repositories/documents/document-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { drawChecked, type CheckedPage } from '@/server/services/documents/check-document';
import { defaultsFinder } from '@/server/services/policy/manage-defaults';
import { filledFor } from '@/server/services/policy/mark-facts';

/** What stands for what is known only once somebody opens it, or it has been sent. */
const SHOWN_NETWORK = '192.0.2.14';
const SHOWN_DEVICE = deviceLabel('Firefox Linux');
const SHOWN_DISPATCH = 'this dispatch';

/**
 * The first page of a document as somebody would see it, with the watermark of what is composed. It
 * says that it is a preview and who looks, so that it cannot pass for a page that was sent.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function previewPage(
  deps: Deps,
  actor: StaffActor,
  {
    id,
    page,
    width,
    column,
    row,
    watermark,
    medium,
    ground,
    at,
    network,
    ...person
  }: PreviewPageInput,
): Promise<CheckedPage> {
  const [found, defaultsOf] = await Promise.all([
    findDocument(deps.db.read, id),
    defaultsFinder(deps.db.read),
  ]);
  if (found === null) throw new ServiceError('no-document');
  const { document } = found;
  const around = defaultsOf({
    document: document.id,
    marking: document.markingId,
    folder: document.folderId,
  });
  const opener = {
    ...person,
    network: network ?? SHOWN_NETWORK,
    device: SHOWN_DEVICE,
    dispatch: SHOWN_DISPATCH,
  };
  const filled = await filledFor(
    deps.db.read,
    watermarkUnder(watermark, around),
    found,
    opener,
    at ?? deps.clock.now(),
  );
  const shown = fillLayers([...filled, previewMark(actor.name)], () => ({ copy: '1' }));
  return drawChecked(deps, actor, {
    id,
    page,
    ...sizeAsked({ width, column, row }),
    watermark: shown,
    medium,
    ground,
  });
}

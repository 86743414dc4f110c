import 'server-only';
import { checkMark } from '@/core/watermark/check-mark';
import { hasCode } from '@/core/base/errors';
import type { DocumentId } from '@/core/base/ids';
import { HOUR } from '@/core/base/time';
import { layersOn, type Watermark } from '@/core/watermark/layers';
import { reaches } from '@/core/policy/permissions';
import type { CheckView } from '@/contracts/document';
import type { PagePicture } from '@/server/rendering/render-task';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { wasChecked } from '@/server/repositories/ledger/last-done';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { noteDamaged } from '@/server/services/documents/check-contents';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { recordAlone, whereabouts } from '@/server/services/base/record';
import { payloadKeyOf, sealedSource } from '@/server/services/documents/sealed-source';
import type { OpenName } from '@/server/vault/keyring';

/** How long one check lasts: coming back to it within that time is not another one. */
const CHECK_LASTS = 12 * HOUR;

type Found = NonNullable<Awaited<ReturnType<typeof findDocument>>>;

/**
 * @throws ServiceError `NOT_FOUND`, also of a destroyed key; `NOT_ALLOWED` for anyone who does not
 * answer for the document
 */
async function needOwn(deps: Pick<Deps, 'db'>, actor: StaffActor, id: DocumentId): Promise<Found> {
  const found = await findDocument(deps.db.read, id);
  if (found === null) throw new ServiceError('no-document');
  const { ownerId, deputyId } = found.document;
  if (!reaches(actor, { owner: ownerId, deputy: deputyId }))
    throw new ServiceError('check-of-others');
  if (found.version.wrappedKey === null) throw new ServiceError('key-destroyed-for-all');
  return found;
}

function nameOf(actor: StaffActor, { version }: Found): OpenName {
  return `check ${actor.id} ${version.id}`;
}

/** The key for a check; taking it from the vault begins the check, and is recorded as such. */
async function keyFor(deps: Deps, actor: StaffActor, found: Found): Promise<Uint8Array> {
  const { document, version } = found;
  const name = nameOf(actor, found);
  const now = deps.clock.now();
  const isGoingOn = await wasChecked(
    deps.db.read,
    document.id,
    version.id,
    actor.id,
    now - CHECK_LASTS,
  );
  const held = isGoingOn ? deps.keyring.find(name) : null;
  if (held !== null) return held;
  if (version.wrappedKey === null) throw new ServiceError('key-destroyed');
  const key = payloadKeyOf(
    deps,
    { blobKey: version.blobKey, headerBytes: version.headerBytes, plainBytes: version.bytes },
    deps.vault.unwrap(
      { wrapped: version.wrappedKey, generation: version.keyGeneration },
      version.id,
    ),
  );
  const about = {
    actor: { kind: 'staff' as const, id: actor.id },
    occurredAt: now,
    document: document.id,
    version: version.id,
  };
  await recordAlone(
    deps,
    ...(isGoingOn
      ? []
      : [
          {
            action: 'document.checked' as const,
            outcome: 'granted' as const,
            ...about,
            personal: whereabouts(deps, actor.from),
          },
        ]),
    {
      action: 'key.unwrapped',
      outcome: 'done',
      ...about,
      details: { for: isGoingOn ? 'check-page' : 'check' },
    },
  );
  deps.keyring.hold(name, key);
  return key;
}

/**
 * Opens a document for a member of staff who answers for it, to look whether it is right. It is
 * marked as a check in the ledger, is not among the opens that are counted, and names no recipient.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function checkDocument(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: DocumentId },
): Promise<CheckView> {
  const found = await needOwn(deps, actor, id);
  await keyFor(deps, actor, found);
  const { document, version } = found;
  return {
    id,
    title: document.title,
    reference: document.reference,
    pages: version.pages,
    revoked: document.revokedAt !== null,
  };
}

/** Draws one page of a check, marked with who looks at it. @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
export async function checkPage(
  deps: Deps,
  actor: StaffActor,
  { id, page, width }: { readonly id: DocumentId; readonly page: number; readonly width: number },
): Promise<PagePicture> {
  const zone = (await findOrganisation(deps.db.read))?.zone ?? 'UTC';
  const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: zone }).format(
    deps.clock.now(),
  );
  return drawChecked(deps, actor, { id, page, width, watermark: [checkMark(actor.name, day)] });
}

/**
 * Draws a page for a member of staff who answers for the document, as a check.
 *
 * @param drawing `watermark` has to say who looks: what is drawn may be photographed
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function drawChecked(
  deps: Deps,
  actor: StaffActor,
  drawing: {
    readonly id: DocumentId;
    readonly page: number;
    readonly width: number;
    readonly watermark: Watermark;
    readonly medium?: 'screen' | 'paper';
    readonly ground?: 'light' | 'dark';
  },
): Promise<PagePicture> {
  const { id, page, width, watermark, medium = 'screen', ground = 'light' } = drawing;
  const found = await needOwn(deps, actor, id);
  const key = await keyFor(deps, actor, found);
  const { version } = found;
  const source = sealedSource(
    deps,
    {
      blobKey: version.blobKey,
      headerBytes: version.headerBytes,
      plainBytes: version.bytes,
      mediaType: version.mediaType,
    },
    key,
  );
  try {
    return await deps.renderer.run(
      medium === 'paper'
        ? { kind: 'print', source, page, watermark: layersOn(watermark, 'paper'), width }
        : { kind: 'page', source, page, width, watermark, isDark: ground === 'dark' },
      { who: actor.id, signal: null },
    );
  } catch (error) {
    if (hasCode(error, 'CONTENT_DAMAGED')) await noteDamaged(deps, version.id);
    throw error;
  }
}

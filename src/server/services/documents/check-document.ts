import 'server-only';
import { checkMark } from '@/core/watermark/check-mark';
import { hasCode } from '@/core/base/errors';
import type { DocumentId } from '@/core/base/ids';
import { HOUR } from '@/core/base/time';
import { layersOn, type Watermark } from '@/core/watermark/layers';
import type { CheckFindInput, CheckPageInput, CheckView } from '@/contracts/document';
import { ContentError } from '@/core/pages/errors';
import { sizeAsked, type Note, type PagePart } from '@/core/pages/page-source';
import type {
  PagePicture,
  PagePoints,
  RenderResults,
  RenderTask,
  SealedSource,
} from '@/server/rendering/render-task';
import { findVersion } from '@/server/repositories/documents/version-repository';
import { wasChecked } from '@/server/repositories/ledger/last-done';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import { noteDamaged } from '@/server/services/documents/check-contents';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { needOwnDocument, type FoundDocument } from '@/server/services/documents/own-document';
import { recordAlone, whereabouts } from '@/server/services/base/record';
import { payloadKeyOf, sealedPages, sealedSource } from '@/server/services/documents/sealed-source';
import type { OpenName } from '@/server/vault/keyring';

/** How long one check lasts: coming back to it within that time is not another one. */
const CHECK_LASTS = 12 * HOUR;

type Found = FoundDocument;

/**
 * @throws ServiceError `NOT_FOUND`, also of a destroyed key; `NOT_ALLOWED` for anyone who does not
 * answer for the document
 */
async function needOwn(
  deps: Pick<Deps, 'db'>,
  actor: StaffActor,
  id: DocumentId,
  number?: number,
): Promise<Found> {
  const current = await needOwnDocument(deps, actor, id, 'check-of-others');
  const other =
    number === undefined || number === current.version.number
      ? current.version
      : await findVersion(deps.db.read, id, number);
  if (other === null) throw new ServiceError('no-document');
  const found = { ...current, version: other };
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
    sealedPages(version),
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
  { id, page, version, ...asked }: CheckPageInput,
): Promise<CheckedPage> {
  const zone = (await findOrganisation(deps.db.read))?.zone ?? 'UTC';
  const day = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeZone: zone }).format(
    deps.clock.now(),
  );
  const watermark = [checkMark(actor.name, day)];
  return drawChecked(deps, actor, { id, version, page, ...sizeAsked(asked), watermark });
}

/** Has something made of a document that a member of staff checks. @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
async function renderChecked<K extends RenderTask['kind']>(
  deps: Deps,
  actor: StaffActor,
  { id, version }: { readonly id: DocumentId; readonly version?: number | undefined },
  taskOf: (source: SealedSource) => Extract<RenderTask, { readonly kind: K }>,
): Promise<RenderResults[K]> {
  const found = await needOwn(deps, actor, id, version);
  if (found.version.pages === 0) throw new ContentError('NO_SUCH_PAGE');
  const key = await keyFor(deps, actor, found);
  const source = sealedSource(deps, sealedPages(found.version), key);
  try {
    return await deps.renderer.run(taskOf(source), { who: actor.id, signal: null });
  } catch (error) {
    if (hasCode(error, 'CONTENT_DAMAGED')) await noteDamaged(deps, found.version.id);
    throw error;
  }
}

/** What is drawn as a check, and how it is marked. */
type Drawing = {
  readonly id: DocumentId;
  readonly version?: number | undefined;
  readonly page: number;
  readonly width: number;
  readonly part?: PagePart;
  /** It has to say who looks: what is drawn may be photographed. */
  readonly watermark: Watermark;
  readonly medium?: 'screen' | 'paper';
  readonly ground?: 'light' | 'dark';
};

/** A page as it was drawn for a check, and how large it is in points. */
export type CheckedPage = PagePicture & { readonly points: PagePoints };

/**
 * Draws a page for a member of staff who answers for the document, as a check.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function drawChecked(
  deps: Deps,
  actor: StaffActor,
  { page, width, part, watermark, medium = 'screen', ground = 'light', ...of }: Drawing,
): Promise<CheckedPage> {
  if (medium === 'paper') {
    const onPaper = layersOn(watermark, 'paper');
    const printed = await renderChecked<'print'>(deps, actor, of, (source) => ({
      kind: 'print',
      source,
      page,
      width: width,
      watermark: onPaper,
    }));
    return { ...printed, points: printed.size };
  }
  return renderChecked<'page'>(deps, actor, of, (source) => ({
    kind: 'page',
    source,
    page,
    width,
    ...(part === undefined ? {} : { part }),
    watermark,
    isDark: ground === 'dark',
  }));
}

/** Where whole words stand in a document that is checked. @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
export async function findChecked(
  deps: Deps,
  actor: StaffActor,
  { id, words, from }: CheckFindInput,
): Promise<RenderResults['find']> {
  return renderChecked<'find'>(deps, actor, { id }, (source) => ({
    kind: 'find',
    source,
    words,
    from,
  }));
}

/** The text of a page that is checked. @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
export async function textChecked(
  deps: Deps,
  actor: StaffActor,
  { id, page, version }: Pick<CheckPageInput, 'id' | 'page' | 'version'>,
): Promise<{ readonly runs: RenderResults['text'] }> {
  return {
    runs: await renderChecked<'text'>(deps, actor, { id, version }, (source) => ({
      kind: 'text',
      source,
      page,
    })),
  };
}

/** The outline of a document that is checked. @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
export async function outlineChecked(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: DocumentId },
): Promise<{ readonly outline: RenderResults['outline'] }> {
  return {
    outline: await renderChecked<'outline'>(deps, actor, { id }, (source) => ({
      kind: 'outline',
      source,
    })),
  };
}

/** The document in the clear with remarks on its pages, for who answers for it. @throws ServiceError */
export async function annotatedCopy(
  deps: Deps,
  actor: StaffActor,
  id: DocumentId,
  notes: readonly Note[],
): Promise<Uint8Array> {
  const { bytes } = await renderChecked<'annotate'>(deps, actor, { id }, (source) => ({
    kind: 'annotate',
    source,
    notes,
  }));
  return bytes;
}

/** What a document is called, for who answers for it. @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
export async function nameOfDocument(
  deps: Pick<Deps, 'db'>,
  actor: StaffActor,
  { id }: { readonly id: DocumentId },
): Promise<{ readonly title: string; readonly reference: string }> {
  const { document } = await needOwnDocument(deps, actor, id, 'comments-of-others');
  const { title, reference } = document;
  return { title, reference };
}

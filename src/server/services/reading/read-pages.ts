import 'server-only';
import type { FindInput, PageInput, ReadingInput } from '@/contracts/reader';
import type { LicenceId } from '@/core/base/ids';
import type { RenderResults } from '@/server/rendering/render-task';
import { sizeAsked, type OutlineEntry, type TextRun } from '@/core/pages/page-source';
import type { Transaction } from '@/server/db/database';
import { noteShownFor, noteShownPage } from '@/server/repositories/reading/reader-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { readsWithAids } from '@/server/services/policy/reading-aids';
import { tooMany } from '@/server/services/base/errors';
import { record, recordAlone } from '@/server/services/base/record';
import {
  type Waiting,
  type Refused,
  needLicence,
  decideAgain,
  recordWithheld,
  needSource,
  render,
  askerOf,
  type Opened,
  aboutOpen,
} from '@/server/services/reading/open-licence';
import {
  decideStanding,
  fallenSince,
  standingOpen,
  type Standing,
} from '@/server/services/reading/standing-opens';

/** Draws one page with the watermark of this open. */
export async function renderPage(
  deps: Deps,
  actor: ReaderActor,
  input: PageInput,
  waiting?: Waiting,
): Promise<RenderResults['page'] | Refused> {
  const standing = await standingOpen(deps, actor, input.licence);
  const { opened } = standing;
  const decision = decideStanding(deps, actor, standing, 'read');
  if (decision.outcome === 'refused') return recordWithheld(deps, actor, opened, 'read', decision);
  const source = await needSource(deps, actor, opened);
  const picture = await render(
    deps,
    opened,
    {
      kind: 'page',
      source,
      page: input.page,
      ...sizeAsked(input),
      watermark: opened.licence.watermark,
    },
    askerOf(opened, waiting),
  );
  const fallen = await noteShown(deps, actor, standing, input.page);
  if (fallen !== null) return recordWithheld(deps, actor, opened, 'read', fallen);
  // The next one is most likely asked for next, and then has only to be marked.
  if (input.column === undefined && input.page < opened.version.pages)
    deps.renderer.ahead(
      { source, page: input.page + 1, ...sizeAsked(input) },
      askerOf(opened, waiting).who,
    );
  return picture;
}

/**
 * A page counts as shown once an open, when its picture is about to be sent. What was changed while
 * it was drawn, or since its grounds were read, is seen here, before anything of it leaves.
 *
 * @returns why it is not sent; null: it is
 */
async function noteShown(
  deps: Deps,
  actor: ReaderActor,
  standing: Standing,
  page: number,
): Promise<Refused | null> {
  const { opened, shown } = standing;
  const fallen = await deps.db.writeTogether(async (tx) => {
    const refusal = await fallenSince(deps, tx, actor, standing, 'read');
    if (refusal !== null) return refusal;
    if (!shown.has(page) && (await noteShownPage(tx, opened.licence.id, page)))
      await record(deps, tx, {
        action: 'page.shown',
        outcome: 'granted',
        ...aboutOpen(opened, actor, deps),
        details: { page },
      });
    return null;
  });
  if (fallen === null) shown.add(page);
  return fallen;
}

/** Whether text may be sent: to those who may copy, or to whom it is read aloud. */
async function decideText(
  deps: Deps,
  actor: ReaderActor,
  opened: Opened,
): Promise<{ readonly outcome: 'granted'; readonly aids: boolean } | Refused> {
  const copy = await decideAgain(deps, deps.db.read, actor, opened, 'copy');
  if (copy.outcome === 'granted') return { outcome: 'granted', aids: false };
  const read = await decideAgain(deps, deps.db.read, actor, opened, 'read');
  if (read.outcome === 'refused') return read;
  const of = { owner: opened.document.ownerId, recipient: opened.licence.recipientId };
  const aids = await readsWithAids(deps, deps.db.read, read, of);
  return aids ? { outcome: 'granted', aids } : copy;
}

/** The text of one page, for those who may copy, or to whom it is read aloud. */
export async function readText(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId; readonly page: number },
  waiting?: Waiting,
): Promise<{ readonly runs: readonly TextRun[] } | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const decision = await decideText(deps, actor, opened);
  if (decision.outcome === 'refused') return recordWithheld(deps, actor, opened, 'copy', decision);
  const source = await needSource(deps, actor, opened);
  const runs = await render(
    deps,
    opened,
    { kind: 'text', source, page: input.page },
    askerOf(opened, waiting),
  );
  await recordAlone(deps, {
    action: 'text.sent',
    outcome: 'granted',
    ...aboutOpen(opened, actor, deps),
    details: { page: input.page, ...(decision.aids ? { aids: true as const } : {}) },
  });
  return { runs };
}

/**
 * Writes down that a reader's browser copied text: what was sent may be copied without a word, so
 * this is what the browser told.
 *
 * @throws ServiceError `TOO_MANY`
 */
export async function noteCopied(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId; readonly page: number; readonly characters: number },
): Promise<Record<string, never> | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const wait = await deps.limits.copies(opened.licence.recipientId);
  if (wait > 0) throw tooMany(wait);
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'copy');
  if (decision.outcome === 'refused') return recordWithheld(deps, actor, opened, 'copy', decision);
  await recordAlone(deps, {
    action: 'text.copied',
    outcome: 'granted',
    ...aboutOpen(opened, actor, deps),
    details: { page: input.page, characters: input.characters },
  });
  return {};
}

/**
 * Where whole words stand in a document, from a page on, as boxes: no text is sent, so reading is
 * enough. Each request looks through as much as it may take at a time and says where to go on.
 *
 * @throws ServiceError `TOO_MANY`
 */
export async function findWords(
  deps: Deps,
  actor: ReaderActor,
  { licence, words, from }: FindInput,
  waiting?: Waiting,
): Promise<RenderResults['find'] | Refused> {
  const opened = await needLicence(deps, actor, licence);
  const wait = await deps.limits.searches(opened.licence.recipientId);
  if (wait > 0) throw tooMany(wait);
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'read');
  if (decision.outcome === 'refused')
    return recordWithheld(deps, actor, opened, 'search', decision);
  const source = await needSource(deps, actor, opened);
  const result = await render(
    deps,
    opened,
    { kind: 'find', source, words, from },
    askerOf(opened, waiting),
  );
  await recordAlone(deps, {
    action: 'text.searched',
    outcome: 'granted',
    ...aboutOpen(opened, actor, deps),
    details: {
      from,
      to: result.next === null ? opened.version.pages : result.next - 1,
      found: result.found.reduce((sum, { places }) => sum + places.length, 0),
    },
    personal: { text: words },
  });
  return result;
}

/** The outline that a document brings. It is text of the document, so it goes with its text. */
export async function readOutline(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId },
  waiting?: Waiting,
): Promise<{ readonly outline: readonly OutlineEntry[] } | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const decision = await decideText(deps, actor, opened);
  if (decision.outcome === 'refused') return decision;
  const source = await needSource(deps, actor, opened);
  const outline = await render(deps, opened, { kind: 'outline', source }, askerOf(opened, waiting));
  return { outline };
}

/**
 * Notes how long pages were in view, as the reader's browser tells it: of pages only that were sent
 * in this open, or that a device which was given the key can have shown, and never longer than it
 * has lasted.
 *
 * @throws ServiceError `TOO_MANY`
 */
export async function noteReading(
  deps: Deps,
  actor: ReaderActor,
  input: ReadingInput,
): Promise<Record<string, never>> {
  const opened = await needLicence(deps, actor, input.licence);
  const { licence } = opened;
  const wait = await deps.limits.readings(licence.recipientId);
  if (wait > 0) throw tooMany(wait);
  const lasted = Math.max(0, Math.min(deps.clock.now(), licence.expiresAt) - licence.openedAt);
  await deps.db.writeTogether(async (tx) => {
    if (licence.keyGivenAt !== null) await noteTold(deps, tx, actor, opened, input.pages);
    await noteShownFor(tx, licence.id, input.pages, lasted);
  });
  return {};
}

/** Pages that were shown on the person's own machine: nothing but its reader can tell of them. */
export async function noteTold(
  deps: Deps,
  tx: Transaction,
  actor: ReaderActor,
  opened: Opened,
  pages: ReadingInput['pages'],
  at = deps.clock.now(),
): Promise<void> {
  for (const { page } of pages)
    if (page <= opened.version.pages && (await noteShownPage(tx, opened.licence.id, page)))
      await record(deps, tx, {
        action: 'page.shown',
        outcome: 'granted',
        ...aboutOpen(opened, actor, deps),
        device: opened.licence.deviceId,
        occurredAt: at,
        receivedAt: deps.clock.now(),
        details: { page, told: true },
      });
}

import 'server-only';
import type { LicenceId } from '@/core/base/ids';
import type { PagePicture } from '@/server/rendering/render-task';
import type { TextRun } from '@/server/rendering/page-source';
import { noteShownPage, pageWasShown } from '@/server/repositories/reading/reader-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
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

/** Draws one page with the watermark of this open. */
export async function renderPage(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId; readonly page: number; readonly width: number },
  waiting?: Waiting,
): Promise<PagePicture | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'read');
  if (decision.outcome === 'refused') return recordWithheld(deps, actor, opened, 'read', decision);
  const source = await needSource(deps, actor, opened);
  const picture = await render(
    deps,
    opened,
    {
      kind: 'page',
      source,
      page: input.page,
      width: input.width,
      watermark: opened.licence.watermark,
    },
    askerOf(opened, waiting),
  );
  await noteShown(deps, actor, opened, input.page);
  return picture;
}

/** A page counts as shown once an open, when its picture is about to be sent. */
async function noteShown(
  deps: Deps,
  actor: ReaderActor,
  opened: Opened,
  page: number,
): Promise<void> {
  if (await pageWasShown(deps.db.read, opened.licence.id, page)) return;
  await deps.db.write(async (tx) => {
    if (await noteShownPage(tx, opened.licence.id, page))
      await record(deps, tx, {
        action: 'page.shown',
        outcome: 'granted',
        ...aboutOpen(opened, actor, deps),
        details: { page },
      });
  });
}

/** The text of one page, for those who may copy. */
export async function readText(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId; readonly page: number },
  waiting?: Waiting,
): Promise<{ readonly runs: readonly TextRun[] } | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'copy');
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
    details: { page: input.page },
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

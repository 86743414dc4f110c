import 'server-only';
import type { MediaType } from '@/core/content/media-types';
import { clearFileName } from '@/core/policy/delivery';
import { hasCode } from '@/core/base/errors';
import type { LicenceId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import type { LedgerEventOf } from '@/core/ledger/entry';
import type { Decision, RefusalReason, Withheld } from '@/core/policy/decide';
import type { Right } from '@/core/policy/rights';
import type { OpenState } from '@/contracts/reader';
import type { Reading, Transaction } from '@/server/db/database';
import { MAX_MARKED } from '@/server/rendering/keep-marked';
import { picturesToPdf } from '@/server/rendering/picture-pdf';
import type { Asker } from '@/server/rendering/render-pool';
import type {
  PagePicture,
  PrintedPage,
  RenderResults,
  RenderTask,
  SealedSource,
} from '@/server/rendering/render-task';
import type { TextRun } from '@/server/rendering/page-source';
import { countPrint } from '@/server/repositories/reading/print-counter';
import { grantsByIds } from '@/server/repositories/access/grant-reader';
import { passedOnFrom } from '@/server/repositories/access/wider-repository';
import {
  findLicence,
  noteShownPage,
  pageWasShown,
} from '@/server/repositories/reading/reader-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { openState } from '@/server/services/reading/open-state';
import { noteDamaged } from '@/server/services/documents/check-contents';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { decideFor } from '@/server/services/policy/decide-access';
import { record, recordAlone, whereabouts } from '@/server/services/base/record';
import { payloadKeyOf, plainPieces, sealedSource } from '@/server/services/documents/sealed-source';

/**
 * A refusal met while reading. Bytes are never sent along with one. `open-again`: nothing was
 * refused, but this open is over: it lasted as long as one lasts, or the grant it was charged to
 * ended while another one goes on.
 */
export type Refused = {
  readonly outcome: 'refused';
  readonly reason: RefusalReason | Withheld | 'open-again';
  /** When access ended, where the reason is about that. */ readonly at: Moment | null;
};
type Opened = NonNullable<Awaited<ReturnType<typeof findLicence>>>;
type Granted = Decision & { outcome: 'granted' };

async function needLicence(deps: Deps, actor: ReaderActor, id: LicenceId): Promise<Opened> {
  const opened = await findLicence(deps.db.read, id);
  // A licence belongs to the device it was issued to; for any other it does not exist.
  if (opened?.licence.deviceId !== actor.device) throw new ServiceError('not-open-here');
  return opened;
}

function about(
  { licence, version, dispatch }: Opened,
  actor: ReaderActor,
  deps: Deps,
): Omit<LedgerEventOf<'document.opened'>, 'action' | 'outcome' | 'details'> {
  return {
    actor: { kind: 'recipient', id: licence.recipientId },
    occurredAt: deps.clock.now(),
    document: licence.documentId,
    version: version.id,
    recipient: licence.recipientId,
    grant: licence.grantId,
    dispatch: dispatch.id,
    device: actor.device,
    licence: licence.id,
  };
}

/** Decides anew for every request inside an open, so that a change bites at once. */
async function decideAgain(
  deps: Deps,
  db: Reading | Transaction,
  actor: ReaderActor,
  { licence }: Opened,
  right: Right,
): Promise<Granted | Refused> {
  const decision = await decideFor(deps, db, actor, licence.documentId, {
    licence: licence.id,
    grant: licence.grantId,
  });
  if (decision.outcome === 'refused')
    return { outcome: 'refused', reason: decision.reason, at: decision.at };
  if (deps.clock.now() >= licence.expiresAt || decision.charged !== licence.grantId)
    return { outcome: 'refused', reason: 'open-again', at: null };
  const verdict = decision.rights[right];
  return verdict.granted ? decision : { outcome: 'refused', reason: verdict.why, at: null };
}

/** What a reader's drawing is counted under: themselves, on however many devices. */
function askerOf({ licence }: Opened, waiting: Waiting | undefined): Asker {
  return { who: licence.recipientId, signal: waiting?.signal ?? null };
}

function sealedOf({ blobKey, headerBytes, bytes, mediaType }: Opened['version']) {
  return { blobKey, headerBytes, plainBytes: bytes, mediaType };
}

async function needSource(deps: Deps, actor: ReaderActor, opened: Opened): Promise<SealedSource> {
  const { licence, version } = opened;
  const sealed = sealedOf(version);
  const held = deps.keyring.find(licence.id);
  if (held !== null) return sealedSource(deps, sealed, held);
  if (version.wrappedKey === null) throw new ServiceError('document-gone');
  const key = payloadKeyOf(
    deps,
    sealed,
    deps.vault.unwrap(
      { wrapped: version.wrappedKey, generation: version.keyGeneration },
      version.id,
    ),
  );
  await recordAlone(deps, {
    action: 'key.unwrapped',
    outcome: 'done',
    ...about(opened, actor, deps),
    details: { for: 'reading' },
  });
  deps.keyring.hold(licence.id, key);
  return sealedSource(deps, sealed, key);
}

const actions = {
  read: 'page.shown',
  copy: 'text.copied',
  print: 'document.printed',
  keep: 'document.kept',
} as const;

async function refused(
  deps: Deps,
  actor: ReaderActor,
  opened: Opened,
  right: keyof typeof actions,
  refusal: Refused,
): Promise<Refused> {
  // The next open is decided and written down by itself.
  if (refusal.reason === 'open-again') return refusal;
  await recordAlone(deps, {
    action: actions[right],
    outcome: 'refused',
    reason: refusal.reason,
    ...about(opened, actor, deps),
    personal: whereabouts(deps, actor.from),
  });
  return refusal;
}

/** Has something made of a document; a content that turns out to be damaged is noted, so that the staff hear of it. */
async function made<K extends RenderTask['kind']>(
  deps: Deps,
  { version }: Opened,
  task: Extract<RenderTask, { readonly kind: K }>,
  asker: Asker,
): Promise<RenderResults[K]> {
  try {
    return await deps.renderer.run(task, asker);
  } catch (error) {
    if (hasCode(error, 'CONTENT_DAMAGED')) await noteDamaged(deps, version.id);
    throw error;
  }
}

/** A request that goes on for as long as somebody waits for its answer. */
type Waiting = { readonly signal: AbortSignal };

/** Draws one page with the watermark of this open. */
export async function renderPage(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId; readonly page: number; readonly width: number },
  waiting?: Waiting,
): Promise<PagePicture | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'read');
  if (decision.outcome === 'refused') return refused(deps, actor, opened, 'read', decision);
  const source = await needSource(deps, actor, opened);
  const picture = await made(
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
        ...about(opened, actor, deps),
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
  if (decision.outcome === 'refused') return refused(deps, actor, opened, 'copy', decision);
  const source = await needSource(deps, actor, opened);
  const runs = await made(
    deps,
    opened,
    { kind: 'text', source, page: input.page },
    askerOf(opened, waiting),
  );
  await recordAlone(deps, {
    action: 'text.sent',
    outcome: 'granted',
    ...about(opened, actor, deps),
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
  if (decision.outcome === 'refused') return refused(deps, actor, opened, 'copy', decision);
  await recordAlone(deps, {
    action: 'text.copied',
    outcome: 'granted',
    ...about(opened, actor, deps),
    details: { page: input.page, characters: input.characters },
  });
  return {};
}

/** A file that is made while it is sent. */
export type Made = {
  readonly outcome: 'made';
  readonly name: string;
  readonly mediaType: MediaType;
  readonly bytes?: number;
  readonly pieces: AsyncGenerator<Uint8Array, void>;
};

/** The pages of a rendition one after another. Each is decided anew: a print ends in the middle where access does. */
async function* printedPages(
  deps: Deps,
  actor: ReaderActor,
  opened: Opened,
  {
    from,
    to,
    watermark,
  }: { readonly from: number; readonly to: number; readonly watermark: string },
  waiting: Waiting | undefined,
): AsyncGenerator<PrintedPage, void> {
  for (let page = from; page <= to; page++) {
    const decision = await decideAgain(deps, deps.db.read, actor, opened, 'read');
    if (decision.outcome === 'refused') throw new ServiceError('ended-meanwhile');
    yield await made(
      deps,
      opened,
      { kind: 'print', source: await needSource(deps, actor, opened), page, watermark },
      askerOf(opened, waiting),
    );
  }
}

/** Pieces of which the first was made already, so that what goes wrong at once is still answered with a sentence. */
async function begun(
  pages: AsyncGenerator<PrintedPage, void>,
): Promise<AsyncGenerator<PrintedPage, void>> {
  const first = await pages.next();
  return (async function* () {
    if (first.done === true) return;
    yield first.value;
    yield* pages;
  })();
}

/**
 * Makes a print rendition: pictures of the pages with the watermark, as a PDF that is sent while it
 * is made. It is counted before it is made, and stays counted where making it fails; whether paper
 * came out is unknowable.
 *
 * @throws ServiceError `INVALID`, `TOO_MANY`
 */
export async function printDocument(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId; readonly from: number; readonly to: number },
  waiting?: Waiting,
): Promise<Made | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  if (input.to < input.from || input.to > opened.version.pages)
    throw new ServiceError('no-such-pages');
  const wait = await deps.limits.prints(opened.licence.recipientId);
  if (wait > 0) throw tooMany(wait);
  // Decided and counted in one: two prints asked for at once must not both be the last one.
  const counted = await deps.db.write(async (tx) => {
    const decision = await decideAgain(deps, tx, actor, opened, 'print');
    if (decision.outcome === 'refused') return decision;
    const verdict = decision.rights.print;
    return verdict.granted
      ? {
          outcome: 'counted' as const,
          grant: verdict.grant,
          number: await countPrint(tx, verdict.grant),
        }
      : { outcome: 'refused' as const, reason: verdict.why, at: null };
  });
  if (counted.outcome === 'refused') return refused(deps, actor, opened, 'print', counted);
  const { grant, number } = counted;
  const watermark = `${opened.licence.watermark} · copy ${String(number)}`;
  const pages = await begun(printedPages(deps, actor, opened, { ...input, watermark }, waiting));
  await recordAlone(deps, {
    action: 'document.printed',
    outcome: 'granted',
    rule: grant,
    ...about(opened, actor, deps),
    details: { from: input.from, to: input.to, copy: number },
    personal: whereabouts(deps, actor.from),
  });
  return {
    outcome: 'made',
    pieces: picturesToPdf(opened.document.title, pages),
    mediaType: 'application/pdf',
    name: `${opened.document.reference} copy ${String(number)}.pdf`,
  };
}

async function* oncePiece(bytes: Uint8Array): AsyncGenerator<Uint8Array, void> {
  yield await Promise.resolve(bytes);
}

/** Hands the document over in the clear, watermarked where the format allows. From here on it is beyond reach. */
export async function keepDocument(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId },
  waiting?: Waiting,
): Promise<Made | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'keep');
  if (decision.outcome === 'refused') return refused(deps, actor, opened, 'keep', decision);
  const wait = await deps.limits.prints(opened.licence.recipientId);
  if (wait > 0) throw tooMany(wait);
  const source = await needSource(deps, actor, opened);
  // What is too large to be rewritten is decrypted while it is sent.
  const { pieces, bytes, marked } =
    opened.version.bytes > MAX_MARKED
      ? {
          pieces: plainPieces(deps, sealedOf(opened.version), source.key),
          bytes: opened.version.bytes,
          marked: false,
        }
      : await markedPieces(deps, source, opened, waiting);
  await recordAlone(deps, {
    action: 'document.kept',
    outcome: 'granted',
    ...about(opened, actor, deps),
    details: { marked },
    personal: whereabouts(deps, actor.from),
  });
  return {
    outcome: 'made',
    pieces,
    bytes,
    mediaType: opened.version.mediaType,
    name: clearFileName(opened.document, opened.version.mediaType),
  };
}

async function markedPieces(
  deps: Deps,
  source: SealedSource,
  opened: Opened,
  waiting: Waiting | undefined,
) {
  const { bytes, marked } = await made(
    deps,
    opened,
    { kind: 'keep', source, watermark: opened.licence.watermark },
    askerOf(opened, waiting),
  );
  return { pieces: oncePiece(bytes), bytes: bytes.length, marked };
}

/** What an open reader asks after a change: may it go on, and with what? Asking is not an open and is not recorded. */
export async function checkOpen(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId },
): Promise<(OpenState & { readonly outcome: 'granted' }) | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const decision = await decideAgain(deps, deps.db.read, actor, opened, 'read');
  if (decision.outcome === 'refused') return decision;
  return {
    outcome: 'granted',
    ...(await openState(
      deps,
      { address: actor.address, recipient: opened.licence.recipientId },
      opened.licence.documentId,
      decision,
    )),
  };
}

/** Watches for changes that bear on an open. @returns a function that ends the watch */
export async function watchOpen(
  deps: Deps,
  actor: ReaderActor,
  input: { readonly licence: LicenceId },
  onChange: () => void,
): Promise<() => void> {
  const { licence } = await needLicence(deps, actor, input.licence);
  // What others print of the same grant above counts here as well.
  const above = await passedOnFrom(
    deps.db.read,
    await grantsByIds(deps.db.read, [licence.grantId]),
  );
  return deps.live.watch(
    [licence.grantId, licence.documentId, licence.recipientId, ...above.map(({ id }) => id)],
    licence.recipientId,
    onChange,
  );
}

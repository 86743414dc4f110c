import 'server-only';
import type { MediaType } from '@/core/content/media-types';
import { fillLayers, paperLayers, type Watermark } from '@/core/watermark/layers';
import { clearFileName } from '@/core/policy/delivery';
import { newId, type GrantId, type LicenceId } from '@/core/base/ids';
import type { Transaction } from '@/server/db/database';
import { MAX_MARKED } from '@/core/watermark/marked-file';
import { picturesToPdf } from '@/core/pages/picture-pdf';
import type { PrintedPage, SealedSource } from '@/server/rendering/render-task';
import { insertPaper, nextCopyNumber } from '@/server/repositories/reading/paper-repository';
import { changePrintCount } from '@/server/repositories/reading/print-counter';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError, tooMany } from '@/server/services/base/errors';
import { giveBackPrint } from '@/server/services/reading/paper-register';
import { recordAlone, whereabouts } from '@/server/services/base/record';
import { plainPieces } from '@/server/services/documents/sealed-source';
import {
  type Opened,
  type Waiting,
  decideAgain,
  render,
  needFile,
  needSource,
  askerOf,
  type Refused,
  needLicence,
  recordWithheld,
  aboutOpen,
} from '@/server/services/reading/open-licence';

/** A file that is made while it is sent. */
export type Made = {
  readonly outcome: 'made';
  readonly name: string;
  readonly mediaType: MediaType;
  readonly bytes?: number;
  readonly pieces: AsyncGenerator<Uint8Array, void>;
  /** Whether it bears whose it is: not every format allows that. */
  readonly marked: boolean;
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
  }: { readonly from: number; readonly to: number; readonly watermark: Watermark },
  waiting: Waiting | undefined,
): AsyncGenerator<PrintedPage, void> {
  for (let page = from; page <= to; page++) {
    const decision = await decideAgain(deps, deps.db.read, actor, opened, 'read');
    if (decision.outcome === 'refused') throw new ServiceError('ended-meanwhile');
    yield await render(
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

/** The next copy of a grant, entered in the register of paper. */
async function countedCopy(
  deps: Deps,
  tx: Transaction,
  { licence, version, document }: Opened,
  grant: GrantId,
  { from, to }: { readonly from: number; readonly to: number },
) {
  const number = await nextCopyNumber(tx, grant);
  const paper = newId('paper', deps.random);
  await insertPaper(tx, {
    id: paper,
    grantId: grant,
    documentId: document.id,
    versionId: version.id,
    recipientId: licence.recipientId,
    number,
    fromPage: from,
    toPage: to,
    madeAt: deps.clock.now(),
  });
  return { outcome: 'counted' as const, grant, number, paper };
}

type PagesAsked = { readonly licence: LicenceId; readonly from: number; readonly to: number };

/**
 * A copy on paper, decided and counted in one: two prints asked for at once must not both be the last
 * one. With the watermark that its paper bears.
 *
 * @throws ServiceError `INVALID`, `TOO_MANY`
 */
export async function countCopy(deps: Deps, actor: ReaderActor, opened: Opened, input: PagesAsked) {
  if (input.to < input.from || input.to > opened.version.pages)
    throw new ServiceError('no-such-pages');
  const wait = await deps.limits.prints(opened.licence.recipientId);
  if (wait > 0) throw tooMany(wait);
  const counted = await deps.db.write(async (tx) => {
    const decision = await decideAgain(deps, tx, actor, opened, 'print');
    if (decision.outcome === 'refused') return decision;
    const verdict = decision.rights.print;
    if (!verdict.granted) return { outcome: 'refused' as const, reason: verdict.why, at: null };
    await changePrintCount(tx, verdict.grant, 1);
    return countedCopy(deps, tx, opened, verdict.grant, input);
  });
  if (counted.outcome === 'refused') return recordWithheld(deps, actor, opened, 'print', counted);
  const { reference } = opened.document;
  const copy = String(counted.number);
  const watermark = fillLayers(paperLayers(opened.licence.watermark), () => ({ copy, reference }));
  return { ...counted, watermark, name: `${reference} copy ${copy}.pdf` };
}

/** Writes down that a copy on paper was made, or given out to be made on their own machine. */
export async function recordCopy(
  deps: Deps,
  actor: ReaderActor,
  opened: Opened,
  { from, to }: PagesAsked,
  {
    grant,
    number,
    here,
  }: { readonly grant: GrantId; readonly number: number; readonly here?: true },
): Promise<void> {
  await recordAlone(deps, {
    action: 'document.printed',
    outcome: 'granted',
    rule: grant,
    ...aboutOpen(opened, actor, deps),
    details: { from, to, copy: number, ...(here === undefined ? {} : { here }) },
    personal: whereabouts(deps, actor.from),
  });
}

/**
 * Makes a print rendition: pictures of the pages with the watermark, as a PDF that is sent while it
 * is made. It is counted before it is made. Where not even its first page can be made it is given
 * back; where it fails later, or on paper, those who answer for the document can give it back.
 *
 * @throws ServiceError `INVALID`, `TOO_MANY`
 */
export async function printDocument(
  deps: Deps,
  actor: ReaderActor,
  input: PagesAsked,
  waiting?: Waiting,
): Promise<Made | Refused> {
  const opened = await needLicence(deps, actor, input.licence);
  const counted = await countCopy(deps, actor, opened, input);
  if (counted.outcome === 'refused') return counted;
  const { paper, watermark, name } = counted;
  const pages = await begun(
    printedPages(deps, actor, opened, { ...input, watermark }, waiting),
  ).catch(async (error: unknown) => {
    await giveBackPrint(deps, opened.document.id, paper);
    throw error;
  });
  await recordCopy(deps, actor, opened, input, counted);
  return {
    outcome: 'made',
    pieces: picturesToPdf(opened.document.title, pages),
    mediaType: 'application/pdf',
    name,
    marked: true,
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
  if (decision.outcome === 'refused') return recordWithheld(deps, actor, opened, 'keep', decision);
  const wait = await deps.limits.prints(opened.licence.recipientId);
  if (wait > 0) throw tooMany(wait);
  const { source, sealed } = await needFile(deps, actor, opened);
  // What is too large to be rewritten is decrypted while it is sent.
  const { pieces, bytes, marked } =
    opened.version.bytes > MAX_MARKED
      ? {
          pieces: plainPieces(deps, sealed, source.key),
          bytes: opened.version.bytes,
          marked: false,
        }
      : await markedPieces(deps, source, opened, waiting);
  await recordAlone(deps, {
    action: 'document.kept',
    outcome: 'granted',
    ...aboutOpen(opened, actor, deps),
    details: { marked },
    personal: whereabouts(deps, actor.from),
  });
  return {
    outcome: 'made',
    pieces,
    bytes,
    mediaType: opened.version.mediaType,
    name: clearFileName(opened.document, opened.version),
    marked,
  };
}

async function markedPieces(
  deps: Deps,
  source: SealedSource,
  opened: Opened,
  waiting: Waiting | undefined,
) {
  const { bytes, marked } = await render(
    deps,
    opened,
    {
      kind: 'keep',
      source,
      mediaType: opened.version.mediaType,
      watermark: opened.licence.watermark,
    },
    askerOf(opened, waiting),
  );
  return { pieces: oncePiece(bytes), bytes: bytes.length, marked };
}

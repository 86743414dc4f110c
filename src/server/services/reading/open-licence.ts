import 'server-only';
import { hasCode } from '@/core/base/errors';
import type { LicenceId } from '@/core/base/ids';
import type { Moment } from '@/core/base/time';
import type { LedgerEventOf } from '@/core/ledger/entry';
import type { Decision, RefusalReason, Withheld } from '@/core/policy/decide';
import type { Right } from '@/core/policy/rights';
import type { Reading, Transaction } from '@/server/db/database';
import { ContentError } from '@/core/pages/errors';
import type { Asker } from '@/server/rendering/render-pool';
import type { RenderResults, RenderTask, SealedSource } from '@/server/rendering/render-task';
import { findLicence } from '@/server/repositories/reading/reader-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { noteDamaged } from '@/server/services/documents/check-contents';
import { ServiceError } from '@/server/services/base/errors';
import { decideFor } from '@/server/services/policy/decide-access';
import { recordAlone, whereabouts } from '@/server/services/base/record';
import {
  needHere,
  payloadKeyOf,
  sealedFile,
  sealedPages,
  sealedSource,
  type Sealed,
} from '@/server/services/documents/sealed-source';

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

/** A licence with the version that it opens. */
export type Opened = NonNullable<Awaited<ReturnType<typeof findLicence>>>;

type Granted = Decision & { outcome: 'granted' };

/** The open that a reader goes on with. @throws ServiceError `not-open-here` */
export async function needLicence(deps: Deps, actor: ReaderActor, id: LicenceId): Promise<Opened> {
  const opened = await findLicence(deps.db.read, id);
  // A licence belongs to the device it was issued to; for any other it does not exist.
  if (opened?.licence.deviceId !== actor.device) throw new ServiceError('not-open-here');
  return opened;
}

/**
 * An open of this person whose key was given to a device, on whichever they are; null: there is none
 * such, and one of somebody else does not exist for them.
 */
export async function ownKeyedOpen(
  deps: Deps,
  actor: ReaderActor,
  id: LicenceId,
): Promise<Opened | null> {
  const opened = await findLicence(deps.db.read, id);
  const isTheirs = opened !== null && opened.licence.recipientId === actor.recipient;
  return isTheirs && opened.licence.keyGivenAt !== null ? opened : null;
}

/** What an entry about this open says of it. */
export function aboutOpen(
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
export async function decideAgain(
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
  return goesOn(deps, licence, decision, right);
}

/** What a decision means for an open that goes on. */
export function goesOn(
  deps: Pick<Deps, 'clock'>,
  licence: Opened['licence'],
  decision: Decision,
  right: Right,
): Granted | Refused {
  if (decision.outcome === 'refused')
    return { outcome: 'refused', reason: decision.reason, at: decision.at };
  if (deps.clock.now() >= licence.expiresAt || decision.charged !== licence.grantId)
    return { outcome: 'refused', reason: 'open-again', at: null };
  const verdict = decision.rights[right];
  return verdict.granted ? decision : { outcome: 'refused', reason: verdict.why, at: null };
}

/** What a reader's drawing is counted under: themselves, on however many devices. */
export function askerOf({ licence }: Opened, waiting: Waiting | undefined): Asker {
  return { who: licence.recipientId, signal: waiting?.signal ?? null };
}

/**
 * The pages of an open, decrypted as they are read; taking their key from the vault is recorded.
 *
 * @throws ServiceError `document-gone` where the key is destroyed; ContentError `NO_SUCH_PAGE` where
 * it has none
 */
export async function needSource(
  deps: Deps,
  actor: ReaderActor,
  opened: Opened,
): Promise<SealedSource> {
  needHere(opened.version);
  if (opened.version.pages === 0) throw new ContentError('NO_SUCH_PAGE');
  return heldSource(deps, actor, opened);
}

async function heldSource(deps: Deps, actor: ReaderActor, opened: Opened): Promise<SealedSource> {
  return sealedSource(deps, sealedPages(opened.version), await needKey(deps, actor, opened));
}

/**
 * The key that pages, and comments on them, are sealed with; taking it from the vault is recorded.
 *
 * @throws ServiceError `document-gone` where it is destroyed
 */
export async function needKey(deps: Deps, actor: ReaderActor, opened: Opened): Promise<Uint8Array> {
  const { licence, version } = opened;
  const held = deps.keyring.find(licence.id);
  if (held !== null) return held;
  const key = await unwrapped(deps, actor, opened, sealedPages(version), 'reading');
  deps.keyring.hold(licence.id, key);
  return key;
}

async function unwrapped(
  deps: Deps,
  actor: ReaderActor,
  opened: Opened,
  sealed: Sealed,
  purpose: 'reading' | 'keeping',
): Promise<Uint8Array> {
  const { version } = opened;
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
    ...aboutOpen(opened, actor, deps),
    details: { for: purpose },
  });
  return key;
}

/**
 * The file of an open as it came, which has a key of its own where pages were made of it.
 *
 * @throws ServiceError `document-gone` where the key is destroyed
 */
export async function needFile(
  deps: Deps,
  actor: ReaderActor,
  opened: Opened,
): Promise<{ readonly sealed: Sealed; readonly source: SealedSource }> {
  needHere(opened.version);
  const sealed = sealedFile(opened.version);
  if (opened.version.pagesBytes === null)
    return { sealed, source: await heldSource(deps, actor, opened) };
  const key = await unwrapped(deps, actor, opened, sealed, 'keeping');
  return { sealed, source: sealedSource(deps, sealed, key) };
}

const actions = {
  read: 'page.shown',
  copy: 'text.copied',
  search: 'text.searched',
  comment: 'comment.made',
  print: 'document.printed',
  revise: 'revision.sent',
  keep: 'document.kept',
} as const;

/** Writes down what was refused within an open. */
export async function recordWithheld(
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
    ...aboutOpen(opened, actor, deps),
    personal: whereabouts(deps, actor.from),
  });
  return refusal;
}

/** Has something made of a document; a content that turns out to be damaged is noted, so that the staff hear of it. */
export async function render<K extends RenderTask['kind']>(
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
export type Waiting = { readonly signal: AbortSignal };

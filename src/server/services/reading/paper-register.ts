import 'server-only';
import type { DocumentId, PaperId, StaffId } from '@/core/base/ids';
import { countChange, type PaperState } from '@/core/paper/paper-copy';
import type { NotePaperInput, PaperRegister } from '@/contracts/paper';
import type { Transaction } from '@/server/db/database';
import {
  findPapers,
  paperOf,
  setPaperState,
  type PaperRow,
} from '@/server/repositories/reading/paper-repository';
import { changePrintCount } from '@/server/repositories/reading/print-counter';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';
import { needOwnDocument } from '@/server/services/documents/own-document';

const needOwn = (deps: Pick<Deps, 'db'>, actor: StaffActor, id: DocumentId) =>
  needOwnDocument(deps, actor, id, 'paper-of-others');

/** All copies on paper of a document, for those who answer for it. @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED` */
export async function paperRegister(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: DocumentId },
): Promise<PaperRegister> {
  await needOwn(deps, actor, id);
  const rows = await paperOf(deps.db.read, id);
  return {
    copies: rows.map(({ paper, notedByName, ...of }) => ({
      id: paper.id,
      number: paper.number,
      recipientId: paper.recipientId,
      name: of.name,
      address: of.address,
      dispatchReference: of.dispatchReference,
      version: of.version,
      from: paper.fromPage,
      to: paper.toPage,
      madeAt: paper.madeAt,
      state: paper.state,
      note: paper.note,
      notedBy: notedByName,
      notedAt: paper.notedAt,
    })),
  };
}

type Noting = {
  /** Null: the product itself. */
  readonly by: StaffId | null;
  readonly state: PaperState;
  readonly note: string;
};

/** Notes what became of a copy, and counts it, or no longer, accordingly. */
async function noteOne(
  deps: Deps,
  tx: Transaction,
  paper: PaperRow,
  { by, state, note }: Noting,
): Promise<void> {
  const now = deps.clock.now();
  const change = countChange(paper.state, state);
  await setPaperState(tx, paper.id, {
    state,
    note,
    notedBy: by,
    notedAt: now,
  });
  if (change !== 0) await changePrintCount(tx, paper.grantId, change);
  await record(deps, tx, {
    action: 'print.noted',
    outcome: 'done',
    actor: by === null ? { kind: 'system', id: null } : { kind: 'staff', id: by },
    occurredAt: now,
    document: paper.documentId,
    version: paper.versionId,
    recipient: paper.recipientId,
    grant: paper.grantId,
    rule: paper.grantId,
    details: { copy: paper.number, was: paper.state, now: state },
    ...(note === '' ? {} : { personal: { text: note } }),
  });
}

/**
 * Notes what became of copies on paper. One whose print failed is given back: it may be made once
 * more, under a number of its own.
 *
 * @throws ServiceError `NOT_FOUND`, `NOT_ALLOWED`
 */
export async function notePaper(
  deps: Deps,
  actor: StaffActor,
  { id, copies, state, note }: NotePaperInput,
): Promise<PaperRegister> {
  await needOwn(deps, actor, id);
  await deps.db.write(async (tx) => {
    const found = await findPapers(tx, id, copies);
    if (found.length !== new Set(copies).size) throw new ServiceError('paper-gone');
    // Noted twice at once, it is counted once: what it was is read within the transaction.
    for (const paper of found)
      if (paper.state !== state || paper.note !== note)
        await noteOne(deps, tx, paper, { by: actor.id, state, note });
  });
  return paperRegister(deps, actor, { id });
}

/** A print of which nothing could be made: nothing left the server, so it counts for nothing. */
export async function giveBackPrint(
  deps: Deps,
  document: DocumentId,
  copy: PaperId,
): Promise<void> {
  await deps.db.write(async (tx) => {
    for (const paper of await findPapers(tx, document, [copy]))
      await noteOne(deps, tx, paper, { by: null, state: 'failed', note: '' });
  });
}

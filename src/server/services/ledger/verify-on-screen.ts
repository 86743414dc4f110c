import 'server-only';
import { splitCheckpoints } from '@/core/ledger/checkpoint';
import type { VerifyInput, VerifyLine } from '@/contracts/ledger';
import { lastCheckpoint } from '@/server/repositories/ledger/checkpoint-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { recordAlone } from '@/server/services/base/record';

/** One at a time: each reads the whole ledger. */
let isRunning = false;

/** @throws ServiceError `TOO_MANY` while the ledger is being verified */
function needIdle(): void {
  if (isRunning) throw new ServiceError('verification-running');
}

/**
 * Verifies the ledger from its first entry and tells how far it is, a line each; the last line says
 * what came of it. Checkpoints that were kept outside are those that are handed in and those of the
 * witness file. That it was verified is recorded.
 *
 * @throws ServiceError `TOO_MANY` while it is being verified, `INVALID` where what is handed in is
 * no checkpoint
 */
export async function verifyOnScreen(
  deps: Pick<Deps, 'verifier' | 'witness' | 'recorder' | 'db' | 'clock'>,
  actor: StaffActor,
  { checkpoints }: VerifyInput,
): Promise<AsyncGenerator<Uint8Array, void>> {
  needIdle();
  const handedIn = splitCheckpoints(checkpoints);
  if (checkpoints.trim() !== '' && handedIn.length === 0)
    throw new ServiceError('checkpoint-invalid');
  await recordAlone(deps, {
    action: 'ledger.verified',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
    details: { handedIn: handedIn.length },
  });
  const known = deps.witness.read().checkpoints.map(({ size, text }) => ({ size, text }));
  return lines(deps, [...known, ...handedIn]);
}

async function* lines(
  { verifier, recorder }: Pick<Deps, 'verifier' | 'recorder'>,
  witnesses: readonly { readonly size: number; readonly text: string }[],
): AsyncGenerator<Uint8Array, void> {
  const encoder = new TextEncoder();
  // Asked once more where it is taken: two that came at once have both passed the first question.
  needIdle();
  isRunning = true;
  try {
    for await (const said of verifier.verify(recorder.signer.publicKey, witnesses))
      yield encoder.encode(`${JSON.stringify(said satisfies VerifyLine)}\n`);
  } finally {
    isRunning = false;
  }
}

/** The newest signed checkpoint, for a keeper outside. @throws ServiceError `NOT_FOUND` before anything was signed */
export async function newestCheckpoint(deps: Pick<Deps, 'db'>): Promise<string> {
  const newest = await lastCheckpoint(deps.db.read);
  if (newest === null) throw new ServiceError('nothing-signed');
  return newest.text;
}

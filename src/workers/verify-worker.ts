import { parentPort, workerData } from 'node:worker_threads';
import { readSnapshot } from '@/server/db/database';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import type { VerifyReply, VerifyTask } from '@/server/verifying/ledger-verifier';

class Stopped extends Error {
  override readonly name = 'Stopped';
}

const { databaseUrl, publicKey, witnesses } = workerData as VerifyTask;
let isStopped = false;
parentPort?.on('message', () => {
  isStopped = true;
});

function reply(said: VerifyReply): void {
  parentPort?.postMessage(said);
}

try {
  // What is written meanwhile must not look like a difference. “stopped” is set between two blocks.
  const verification = await readSnapshot(databaseUrl, (db) =>
    verifyLedger(db, { publicKey, witnesses }, (entries) => {
      if (isStopped) throw new Stopped();
      reply({ entries });
    }),
  );
  reply({ verification });
} catch (error) {
  if (!(error instanceof Stopped)) throw error;
} finally {
  parentPort?.close();
}

import { parentPort, workerData } from 'node:worker_threads';
import { bytesToHex, hexToBytes } from '@noble/hashes/utils.js';
import { InclusionProofs } from '@/core/ledger/proofs';
import { openForReading } from '@/server/db/database';
import { storedHashes } from '@/server/repositories/ledger/ledger-chain';
import { nodeHash } from '@/server/vault/node-hash';
import type { Proofs, ProveTask } from '@/server/verifying/ledger-prover';

const { databaseUrl, sequences, size } = workerData as ProveTask;
const { read: db, close } = openForReading(databaseUrl);
try {
  // A sequence counts from 1, a leaf from 0.
  const proofs = new InclusionProofs(
    sequences.map((sequence) => sequence - 1),
    nodeHash,
  );
  for await (const hashes of storedHashes(db, size))
    for (const each of hashes) proofs.add(hexToBytes(each));
  const found: Proofs = new Map(
    [...proofs.finish()].map(([index, path]) => [index + 1, path.map((node) => bytesToHex(node))]),
  );
  parentPort?.postMessage(found);
} finally {
  close();
}

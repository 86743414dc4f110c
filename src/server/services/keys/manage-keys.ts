import 'server-only';
import { createHash } from 'node:crypto';
import { CHUNK, PAYLOAD_NONCE, TAG, chunkCount, openChunk, sealedSize } from '@/core/age/chunks';
import { isPublicKey } from '@/core/age/public-key';
import { equalBytes, utf8 } from '@/core/base/bytes';
import { newId } from '@/core/base/ids';
import type { Drill, DrillInput, KeysPage } from '@/contracts/keys';
import { insertConsent } from '@/server/repositories/policy/consent-repository';
import { findDocument } from '@/server/repositories/documents/document-repository';
import {
  anyRecoverable,
  countVersions,
  lastEntry,
} from '@/server/repositories/documents/key-repository';
import {
  changeOrganisation,
  findOrganisation,
} from '@/server/repositories/staff/organisation-repository';
import { listStaff } from '@/server/repositories/staff/staff-repository';
import { listConsents } from '@/server/services/consents/answer-consents';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { record, recordAlone } from '@/server/services/base/record';
import { payloadKeyOf } from '@/server/services/documents/sealed-source';
import { nodeChunkCipher } from '@/server/vault/node-ciphers';

/** How keys and recovery stand. */
export async function viewKeys(deps: Deps, actor: StaffActor): Promise<KeysPage> {
  const organisation = await findOrganisation(deps.db.read);
  const recoveryKey = organisation?.recoveryKey ?? null;
  const [counts, tried, backup, consents, members] = await Promise.all([
    countVersions(deps.db.read, recoveryKey),
    lastEntry(deps.db.read, 'recovery.tried'),
    lastEntry(deps.db.read, 'backup.made'),
    listConsents(deps, actor),
    listStaff(deps.db.read),
  ]);
  return {
    recoveryKey,
    generation: deps.vault.generation(),
    ...counts,
    twoPeople: organisation?.twoPeople ?? false,
    consents,
    lastBackup: backup?.at ?? null,
    administrators: members.filter(
      ({ row, hasPassword }) =>
        row.role === 'administrator' && row.disabledAt === null && hasPassword !== null,
    ).length,
    lastTried:
      tried === null
        ? null
        : { at: tried.at, who: tried.by ?? '', opened: tried.outcome === 'done' },
  };
}

/**
 * Puts another recovery key in place, for what is protected from now on. What was protected before
 * stays with the key it was encrypted to.
 *
 * @throws ServiceError `INVALID` where it is no public key
 */
export async function changeRecoveryKey(
  deps: Deps,
  actor: StaffActor,
  { recoveryKey }: { readonly recoveryKey: string },
): Promise<Record<string, never>> {
  if (!isPublicKey(recoveryKey)) throw new ServiceError('recovery-key-invalid');
  await deps.db.write(async (tx) => {
    const before = (await findOrganisation(tx))?.recoveryKey ?? null;
    await changeOrganisation(tx, { recoveryKey });
    await record(deps, tx, {
      action: 'recovery.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: deps.clock.now(),
      details: { before, after: recoveryKey },
    });
  });
  return {};
}

/**
 * Asks for two people from now on, or asks a second person whether one is enough again.
 *
 * @throws ServiceError `CONFLICT` where there is nobody else to agree
 */
export async function setTwoPeople(
  deps: Deps,
  actor: StaffActor,
  { on }: { readonly on: boolean },
): Promise<{ readonly waits: boolean }> {
  const { twoPeople, administrators, consents } = await viewKeys(deps, actor);
  if (on === twoPeople) return { waits: false };
  if (on && administrators < 2) throw new ServiceError('no-second-administrator');
  if (!on && consents.some(({ kind }) => kind === 'one-person'))
    throw new ServiceError('waits-already');
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    if (on) await changeOrganisation(tx, { twoPeople: true });
    else
      await insertConsent(tx, {
        id: newId('consent', deps.random),
        kind: 'one-person',
        documents: [],
        reason: '',
        askedBy: actor.id,
        askedAt: now,
      });
    await record(deps, tx, {
      action: 'settings.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: on ? { twoPeople: true } : { twoPeople: true, asked: false },
    });
  });
  return { waits: !on };
}

type Stored = { readonly blobKey: string; readonly headerBytes: number; readonly bytes: number };

/**
 * Head and first chunk of a stored file, as they are on the disk. @throws ServiceError `NOT_FOUND`
 * where they are not
 */
async function firstSealed(
  { blobs }: Pick<Deps, 'blobs'>,
  { blobKey, headerBytes, bytes }: Stored,
): Promise<{ readonly head: Buffer; readonly chunk: Buffer; readonly only: boolean }> {
  const head = headerBytes + PAYLOAD_NONCE;
  const length = head + Math.min(CHUNK + TAG, sealedSize(bytes));
  if (((await blobs.sizeOf(blobKey)) ?? 0) < length) throw new ServiceError('content-not-whole');
  const pieces: Uint8Array[] = [];
  for await (const piece of blobs.read(blobKey, { offset: 0, length })) pieces.push(piece);
  const first = Buffer.concat(pieces);
  return {
    head: first.subarray(0, head),
    chunk: first.subarray(head),
    only: chunkCount(bytes) === 1,
  };
}

/**
 * Begins a drill: picks a document, whose first piece the browser is to open with the recovery key.
 *
 * @throws ServiceError `CONFLICT` where there is no recovery key, or nothing it opens
 */
export async function beginDrill(deps: Deps): Promise<Drill> {
  const recoveryKey = (await findOrganisation(deps.db.read))?.recoveryKey ?? null;
  if (recoveryKey === null) throw new ServiceError('no-recovery-key');
  const found = await anyRecoverable(deps.db.read, recoveryKey);
  if (found === null) throw new ServiceError('nothing-under-recovery');
  const { head, chunk, only } = await firstSealed(deps, found.version);
  return {
    document: found.document.id,
    reference: found.document.reference,
    title: found.document.title,
    head: head.toString('base64'),
    chunk: chunk.toString('base64'),
    only,
  };
}

/**
 * Ends a drill: the browser says what it found, which only somebody who opened the file can know.
 *
 * @throws ServiceError `INVALID` where it is not what is inside
 */
export async function finishDrill(
  deps: Deps,
  actor: StaffActor,
  { document, proof }: DrillInput,
): Promise<Record<string, never>> {
  const found = await findDocument(deps.db.read, document);
  const wrapped = found?.version.wrappedKey ?? null;
  if (found === null || wrapped === null) throw new ServiceError('drill-document-gone');
  const { version } = found;
  const { chunk, only } = await firstSealed(deps, version);
  const key = payloadKeyOf(
    deps,
    version,
    deps.vault.unwrap({ wrapped, generation: version.keyGeneration }, version.id),
  );
  const plain = openChunk(nodeChunkCipher(key), 0, only, chunk);
  const right = equalBytes(utf8(createHash('sha256').update(plain).digest('hex')), utf8(proof));
  const about = {
    actor: { kind: 'staff' as const, id: actor.id },
    occurredAt: deps.clock.now(),
    document,
    version: version.id,
  };
  await recordAlone(
    deps,
    { action: 'key.unwrapped', outcome: 'done', ...about, details: { for: 'recovery drill' } },
    { action: 'recovery.tried', outcome: right ? 'done' : 'failed', ...about },
  );
  if (!right) throw new ServiceError('drill-failed');
  return {};
}

/** Says on the record that a recovery key did not open what it should. */
export async function failDrill(deps: Deps, actor: StaffActor): Promise<Record<string, never>> {
  await recordAlone(deps, {
    action: 'recovery.tried',
    outcome: 'failed',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: deps.clock.now(),
  });
  return {};
}

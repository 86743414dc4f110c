import 'server-only';
import { PAYLOAD_NONCE } from '@/core/age/chunks';
import { encodeHeader } from '@/core/age/header';
import { embargoStanza } from '@/core/age/embargo-stanza';
import { newFileKey } from '@/core/age/recipients';
import type { VersionId } from '@/core/base/ids';
import { findOrganisation } from '@/server/repositories/staff/organisation-repository';
import type { Deps } from '@/server/services/base/deps';
import { needOurs } from '@/server/services/base/trusted-rows';

async function* head(header: Uint8Array, nonce: Uint8Array): AsyncGenerator<Uint8Array> {
  yield header;
  yield await Promise.resolve(nonce);
}

/**
 * Makes the key of a new version and writes the head of its sealed file.
 *
 * @param recoverable whether the organisation's recovery key opens it, too
 */
export async function writeHead(
  deps: Deps,
  versionId: VersionId,
  recoverable: boolean,
): Promise<{
  readonly fileKey: Uint8Array;
  readonly headerBytes: number;
  readonly header: Uint8Array;
  readonly nonce: Uint8Array;
  readonly recoveryKey: string | null;
}> {
  // A recovery key that another program wrote would open everything taken in from now on.
  await needOurs(deps, deps.db.read, { organisation: 'all' });
  const organisation = await findOrganisation(deps.db.read);
  const recoveryKey = recoverable ? (organisation?.recoveryKey ?? null) : null;
  const { fileKey, stanzas } = await newFileKey(recoveryKey === null ? [] : [recoveryKey]);
  const header = encodeHeader([embargoStanza(versionId, deps.publicUrl), ...stanzas], fileKey);
  const nonce = deps.random(PAYLOAD_NONCE);
  await deps.blobs.writeAt(versionId, 0, head(header, nonce));
  return { fileKey, headerBytes: header.length, header, nonce, recoveryKey };
}

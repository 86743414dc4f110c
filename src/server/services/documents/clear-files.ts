import 'server-only';
import { clearFileName } from '@/core/policy/delivery';
import type { FileFacts } from '@/server/repositories/documents/file-repository';
import type { Deps } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { recordAlone } from '@/server/services/base/record';
import {
  payloadKeyOf,
  plainPieces,
  needHere,
  sealedFile,
} from '@/server/services/documents/sealed-source';

/**
 * A document in the clear, decrypted while it is read, for those whom the organisation let it go to
 * unprotected. Taking its key is on the record.
 *
 * @throws ServiceError `NOT_FOUND` where its key is destroyed
 */
export async function clearFileOf(
  deps: Pick<Deps, 'db' | 'vault' | 'recorder' | 'blobs' | 'clock'>,
  { dispatch, document, version, recipient }: FileFacts,
) {
  if (version.wrappedKey === null) throw new ServiceError('key-destroyed-unsendable');
  needHere(version);
  const sealed = sealedFile(version);
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
    actor: { kind: 'system', id: null },
    occurredAt: deps.clock.now(),
    document: document.id,
    version: version.id,
    recipient: recipient.id,
    dispatch: dispatch.id,
    details: { for: 'send-unprotected' },
  });
  return {
    name: clearFileName(document, version),
    mediaType: version.mediaType,
    bytes: version.bytes,
    read: () => plainPieces(deps, sealed, key),
  };
}

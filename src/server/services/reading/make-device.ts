import 'server-only';
import { bytesToHex } from '@noble/hashes/utils.js';
import { newId, type DeviceId, type RecipientId } from '@/core/base/ids';
import { DAY, HOUR } from '@/core/base/time';
import type { EnterCodeInput } from '@/contracts/reader';
import { isDeviceKey } from '@/server/identity/device-proof';
import type { Transaction } from '@/server/db/database';
import { insertDevice } from '@/server/repositories/reading/reader-repository';
import { deviceLabel } from '@/core/insight/device-label';
import type { Deps } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';

export const KEPT_LASTS = 60 * DAY;
const VISIT_LASTS = 8 * HOUR;

type NewDevice = {
  readonly address: string;
  readonly recipient: RecipientId | null;
  readonly agent: string;
  readonly kept: boolean;
  readonly publicKey: EnterCodeInput['publicKey'];
  /** When the address was proven by a code: now, but for a passkey. */
  readonly provenAt?: number;
  readonly passkeyAt?: number;
};

/** @throws ServiceError `INVALID` where no signature could ever be checked with this key */
export function needDeviceKey(publicKey: EnterCodeInput['publicKey']): void {
  if (!isDeviceKey(publicKey)) throw new ServiceError('device-key-unusable');
}

/** A browser that may come back as the person it is for. @returns the token for its cookie, in the clear only here */
export async function makeDevice(
  deps: Pick<Deps, 'random' | 'vault'>,
  tx: Transaction,
  { address, recipient, agent, kept, publicKey, provenAt, passkeyAt }: NewDevice,
  now: number,
): Promise<{ readonly device: DeviceId; readonly deviceToken: string }> {
  const deviceToken = bytesToHex(deps.random(32));
  const device = newId('device', deps.random);
  await insertDevice(tx, {
    id: device,
    address,
    recipientId: recipient,
    label: deviceLabel(agent),
    kept,
    tokenHash: deps.vault.mac('device', deviceToken),
    publicKey,
    createdAt: now,
    provenAt: provenAt ?? now,
    passkeyAt: passkeyAt ?? null,
    expiresAt: now + (kept ? KEPT_LASTS : VISIT_LASTS),
  });
  return { device, deviceToken };
}

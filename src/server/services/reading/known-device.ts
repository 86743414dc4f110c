import 'server-only';
import type { RecipientId } from '@/core/base/ids';
import { holding } from '@/server/db/held';
import {
  findDeviceByToken,
  findRecipientByAddress,
  type DeviceRow,
} from '@/server/repositories/reading/reader-repository';
import type { Deps } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { areOurs } from '@/server/services/base/trusted-rows';

/** A device that has proven an address, and the recipient whose address it is. */
export type KnownDevice = { readonly device: DeviceRow; readonly recipient: RecipientId | null };

const notProven = () => new ServiceError('address-unproven');

/** The device that was given this token, if it is one of ours and has not ended. */
export async function findKnownDevice(deps: Deps, token: string): Promise<DeviceRow | null> {
  const { db, vault, clock } = deps;
  const device = await findDeviceByToken(db.read, vault.mac('device', token), clock.now());
  return device !== null && (await areOurs(deps, db.read, { devices: [device.id] }))
    ? device
    : null;
}

/** @throws ServiceError `NOT_SIGNED_IN` */
export async function needKnownDevice(deps: Deps, token: string): Promise<KnownDevice> {
  const device = await findKnownDevice(deps, token);
  if (device === null) throw notProven();
  const recipient = await findRecipientByAddress(deps.db.read, device.address);
  return { device, recipient: recipient?.id ?? null };
}

/** Most that are held: those that asked last. */
const MOST = 2_000;
const hold = holding<KnownDevice>(MOST);

/**
 * The same as it stands or stood a moment ago: for whoever looks once more before anything is sent.
 *
 * @throws ServiceError `NOT_SIGNED_IN`
 */
export async function needHeldDevice(deps: Deps, token: string): Promise<KnownDevice> {
  const { value } = await hold(deps.db, deps.vault.mac('device', token), () =>
    needKnownDevice(deps, token),
  );
  if (value.device.expiresAt <= deps.clock.now()) throw notProven();
  return value;
}

import 'server-only';
import type { DeviceId } from '@/core/base/ids';
import type { DeviceOfPersonInput, NameDeviceInput, OwnDevice } from '@/contracts/sent';
import type { Transaction } from '@/server/db/database';
import { findPerson } from '@/server/repositories/people/people-repository';
import { endDevice, findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import {
  devicesOfAddress,
  findDeviceOf,
  nameDevice,
} from '@/server/repositories/reading/sent-repository';
import type { Deps, ReaderActor, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { actorOf, record, whereabouts } from '@/server/services/base/record';

/** The devices of the person who asks, the newest first. */
export async function ownDevices(
  deps: Pick<Deps, 'db' | 'clock'>,
  actor: ReaderActor,
): Promise<OwnDevice[]> {
  const rows = await devicesOfAddress(deps.db.read, actor.address, deps.clock.now());
  return rows.map(({ label, name, ...device }) => ({
    ...device,
    name: name ?? label,
    isThis: device.id === actor.device,
  }));
}

/** @throws ServiceError `NOT_FOUND` where an address has no such device, or it was ended already */
async function needDevice(
  tx: Transaction,
  address: string,
  id: DeviceId,
  now: number,
): Promise<void> {
  if ((await findDeviceOf(tx, address, id, now)) === null) throw new ServiceError('device-unknown');
}

/**
 * Ends one device of the person who asks: nothing opens there any more until the address is proven
 * there again, and what is open there goes blank.
 *
 * @throws ServiceError `NOT_FOUND` where it is not theirs, or was ended already
 */
export async function endOwnDevice(
  deps: Deps,
  actor: ReaderActor,
  { device }: { readonly device: DeviceId },
): Promise<readonly OwnDevice[]> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    await needDevice(tx, actor.address, device, now);
    await endDevice(tx, device, now);
    const recipient = await findRecipientByAddress(tx, actor.address);
    await record(deps, tx, {
      action: 'device.ended',
      outcome: 'done',
      actor: actorOf({ ...actor, recipient: recipient?.id ?? null }),
      occurredAt: now,
      device,
      ...(recipient === null ? {} : { recipient: recipient.id }),
      personal: { address: actor.address, ...whereabouts(deps, actor.from) },
    });
  });
  return ownDevices(deps, actor);
}

/** Ends the device that asks: its cookie and key open nothing any more. */
export async function leaveDevice(deps: Deps, actor: ReaderActor): Promise<Record<string, never>> {
  await endOwnDevice(deps, actor, { device: actor.device });
  return {};
}

/** Calls a device of the person who asks by a name. @throws ServiceError `NOT_FOUND` */
export async function nameOwnDevice(
  deps: Deps,
  actor: ReaderActor,
  { device, name }: NameDeviceInput,
): Promise<readonly OwnDevice[]> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    await needDevice(tx, actor.address, device, now);
    await nameDevice(tx, device, name);
  });
  return ownDevices(deps, actor);
}

/**
 * Shuts out one device of a person, by staff; their other devices go on.
 *
 * @throws ServiceError `NOT_FOUND` where they have no such device, or it was ended already
 */
export async function shutOutDevice(
  deps: Deps,
  actor: StaffActor,
  { id, device }: DeviceOfPersonInput,
): Promise<Record<string, never>> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const person = await findPerson(tx, id);
    if (person === null) throw new ServiceError('no-person');
    await needDevice(tx, person.address, device, now);
    await endDevice(tx, device, now);
    await record(deps, tx, {
      action: 'device.ended',
      outcome: 'done',
      actor: actorOf(actor),
      occurredAt: now,
      device,
      recipient: id,
    });
  });
  return {};
}

import { z } from 'zod';
import { isId, type DeviceId } from '@/core/base/ids';
import { recipientId } from '@/contracts/access';
import type { OwnPasskey } from '@/contracts/passkeys';
import type { SharedDocument } from '@/contracts/reader';
import type { OwnRequest } from '@/contracts/requests';

const deviceId = z.custom<DeviceId>(
  (value) => typeof value === 'string' && isId('device', value),
  'no such device',
);
export const deviceInput = z.object({ device: deviceId });
/** What a person calls a device; empty: what it is. */
export const nameDeviceInput = deviceInput.extend({ name: z.string().trim().max(60) });
export type NameDeviceInput = z.infer<typeof nameDeviceInput>;
/** A device of a person, as staff name it. */
export const deviceOfPersonInput = deviceInput.extend({ id: recipientId });
export type DeviceOfPersonInput = z.infer<typeof deviceOfPersonInput>;

/** A document as it was sent to somebody, the newest time it was. */
export type SentDocument = SharedDocument & {
  readonly sender: string;
  readonly sentAt: number;
  readonly requests: readonly OwnRequest[];
};

/** A browser in which somebody proved their address. */
export type OwnDevice = {
  readonly id: DeviceId;
  /** What they call it, or what it is. */
  readonly name: string;
  readonly kept: boolean;
  readonly since: number;
  readonly until: number;
  /** When something was opened on it last; null: nothing was. */
  readonly openedAt: number | null;
  /** It is the one that asks. */
  readonly isThis: boolean;
};

/** Everything an organisation sent to an address, and where the address was proven. */
export type SentToYou = {
  readonly address: string;
  readonly organisation: string;
  readonly kept: boolean;
  readonly documents: readonly SentDocument[];
  readonly devices: readonly OwnDevice[];
  readonly passkeys: readonly OwnPasskey[];
};

import 'server-only';
import { exposure } from '@/core/policy/exposure';
import { holds } from '@/core/policy/permissions';
import type { StillReadable, StillReadableInput } from '@/contracts/still-readable';
import { keyHolders } from '@/server/repositories/reading/key-holders';
import type { Deps, StaffActor } from '@/server/services/base/deps';

/**
 * Who could still read on their own machine if all access were cut off at this moment, and until
 * when; apart from them, everybody who has held a key. Of what the asker may read the record of.
 */
export async function stillReadable(
  deps: Pick<Deps, 'db' | 'clock'>,
  actor: StaffActor,
  of: StillReadableInput,
): Promise<StillReadable> {
  const own = holds(actor.role, 'read-record') ? undefined : actor.id;
  const now = deps.clock.now();
  const rows = await keyHolders(deps.db.read, of, own);
  const running = rows.flatMap(({ label, deviceName, keyGivenAt, offlineUntil, ...whose }) =>
    keyGivenAt !== null && offlineUntil !== null && offlineUntil > now
      ? [{ ...whose, device: deviceName ?? label, keyGivenAt, until: offlineUntil }]
      : [],
  );
  const { curve } = exposure(
    running.map(({ document, recipient, keyGivenAt, until }) => ({
      document,
      recipient,
      checkedAt: keyGivenAt,
      offline: until - keyGivenAt,
      until,
    })),
    now,
  );
  // The newest time of each person and document stands first.
  const held = new Map<string, StillReadable['held'][number]>();
  for (const {
    label: _label,
    deviceName: _name,
    offlineUntil: _until,
    keyGivenAt,
    ...whose
  } of rows) {
    const key = `${whose.recipient} ${whose.document}`;
    if (!held.has(key)) held.set(key, { ...whose, lastGivenAt: keyGivenAt ?? now });
  }
  return {
    running: running
      .map(({ keyGivenAt: _given, ...each }) => each)
      .sort((a, b) => b.until - a.until),
    curve,
    held: [...held.values()],
  };
}

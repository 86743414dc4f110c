import 'server-only';
import type { Moment } from '@/core/base/time';
import type { SettingsDetails } from '@/core/ledger/details';
import type { LedgerEvent } from '@/core/ledger/entry';
import type { StaffActor } from '@/server/services/base/deps';

/** The entry about something that is kept under a name and was changed. */
export function aboutSettings(
  actor: Pick<StaffActor, 'id'>,
  now: Moment,
  details: SettingsDetails,
): LedgerEvent {
  return {
    action: 'settings.changed',
    outcome: 'done',
    actor: { kind: 'staff', id: actor.id },
    occurredAt: now,
    details,
  };
}

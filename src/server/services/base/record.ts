import 'server-only';
import type { LedgerEvent } from '@/core/ledger/entry';
import type { PersonalFields } from '@/core/ledger/commitment';
import { appendEntries } from '@/server/repositories/ledger/ledger-writer';
import type { Transaction } from '@/server/db/database';
import type {
  Deps,
  Origin,
  ReaderActor,
  StaffActor,
  StrangerActor,
} from '@/server/services/base/deps';

/** Writes entries inside a change's own transaction. */
export async function record(
  deps: Pick<Deps, 'recorder'>,
  tx: Transaction,
  ...events: readonly LedgerEvent[]
): Promise<void> {
  await appendEntries(tx, deps.recorder, events);
}

/** Writes entries that go with no other change: nothing is decided by what the ledger says. */
export async function recordAlone(
  deps: Pick<Deps, 'recorder' | 'db'>,
  ...events: readonly LedgerEvent[]
): Promise<void> {
  await deps.db.writeAside((tx) => record(deps, tx, ...events));
}

/** Where somebody was, as personal facts: network address, approximate place, kind of browser. */
export function whereabouts({ places }: Pick<Deps, 'places'>, from: Origin): PersonalFields {
  const place = places.find(from.network);
  return {
    network: from.network,
    agent: from.agent.slice(0, 300),
    ...(place === null ? {} : { place: `${place.name}, ${place.accuracy}` }),
  };
}

/** The actor as the ledger names them. */
export function actorOf(actor: StaffActor | ReaderActor | StrangerActor): LedgerEvent['actor'] {
  if (actor.kind === 'staff') return { kind: 'staff', id: actor.id };
  if (actor.kind === 'reader' && actor.recipient !== null)
    return { kind: 'recipient', id: actor.recipient };
  return { kind: 'stranger', id: null };
}

import 'server-only';
import type { LicenceId } from '@/core/base/ids';
import type { Right } from '@/core/policy/rights';
import type { Reading, Transaction } from '@/server/db/database';
import { isDeviceLeft } from '@/server/repositories/reading/reader-repository';
import type { Deps, ReaderActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { areOurs } from '@/server/services/base/trusted-rows';
import { decideOn, groundsFor, type Grounds } from '@/server/services/policy/decide-access';
import {
  decideAgain,
  goesOn,
  needLicence,
  type Opened,
  type Refused,
} from '@/server/services/reading/open-licence';

// Whoever reads turns page after page on the same grounds. They are held for as long as nothing was
// changed by which access is decided; before a page is sent it is seen whether that still is so, in
// the very transaction that notes that it was shown.

/** An open, and what decides about it, as both stood at one generation of the database. */
export type Standing = {
  readonly opened: Opened;
  readonly grounds: Grounds;
  readonly generation: number;
  /** Pages that are known to have been shown in it. */
  readonly shown: Set<number>;
};

/** Opens that are held: those read last. */
const MOST = 2_000;

const held = new WeakMap<Deps['db'], Map<LicenceId, Standing>>();

function heldIn(db: Deps['db']): Map<LicenceId, Standing> {
  const known = held.get(db) ?? new Map<LicenceId, Standing>();
  held.set(db, known);
  return known;
}

async function readStanding(deps: Deps, actor: ReaderActor, id: LicenceId): Promise<Standing> {
  // Taken first: what is changed while this is read makes it another one.
  const generation = deps.db.generation();
  const opened = await needLicence(deps, actor, id);
  const { licence } = opened;
  const during = { licence: licence.id, grant: licence.grantId };
  const grounds = await groundsFor(deps, deps.db.read, actor, licence.documentId, during);
  return { opened, grounds, generation, shown: new Set() };
}

/** An open that goes on, as it stands or as it stood a moment ago. @throws ServiceError `not-open-here` */
export async function standingOpen(
  deps: Deps,
  actor: ReaderActor,
  id: LicenceId,
): Promise<Standing> {
  const all = heldIn(deps.db);
  const known = all.get(id);
  if (known?.generation === deps.db.generation() && known.opened.licence.deviceId === actor.device)
    return known;
  const fresh = await readStanding(deps, actor, id);
  // Put at the end again: the first is the one that was read longest ago.
  all.delete(id);
  all.set(id, fresh);
  const [oldest] = all.keys();
  if (all.size > MOST && oldest !== undefined) all.delete(oldest);
  return fresh;
}

/** Decides about an open on the grounds that are held. */
export function decideStanding(
  deps: Deps,
  actor: ReaderActor,
  { opened: { licence }, grounds }: Standing,
  right: Right,
): ReturnType<typeof goesOn> {
  const during = { licence: licence.id, grant: licence.grantId };
  return goesOn(deps, licence, decideOn(deps, grounds, actor, during), right);
}

/**
 * The refusal of an open that time has ended since it was decided about, or whose grounds are not
 * what they were when they were read; null: it still stands. Inside a job of the write queue this is
 * exact.
 */
export async function fallenSince(
  deps: Deps,
  db: Reading | Transaction,
  actor: ReaderActor,
  standing: Standing,
  right: Right,
): Promise<Refused | null> {
  const { opened, generation } = standing;
  if (deps.db.generation() === generation) {
    const still = decideStanding(deps, actor, standing, right);
    return still.outcome === 'refused' ? still : null;
  }
  const isOver =
    (await isDeviceLeft(db, actor.device)) ||
    !(await areOurs(deps, db, { devices: [actor.device] }));
  if (isOver) throw new ServiceError('address-unproven');
  const decision = await decideAgain(deps, db, actor, opened, right);
  return decision.outcome === 'refused' ? decision : null;
}

import 'server-only';
import type { LicenceId } from '@/core/base/ids';
import type { Right } from '@/core/policy/rights';
import type { Reading, Transaction } from '@/server/db/database';
import { holding } from '@/server/db/held';
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

/** Most that are held: those read last. */
const MOST = 2_000;
const hold = holding<Omit<Standing, 'generation'>>(MOST);

async function readStanding(
  deps: Deps,
  actor: ReaderActor,
  id: LicenceId,
): Promise<Omit<Standing, 'generation'>> {
  const opened = await needLicence(deps, actor, id);
  const { licence } = opened;
  const during = { licence: licence.id, grant: licence.grantId };
  const grounds = await groundsFor(deps, deps.db.read, actor, licence.documentId, during);
  // Who asks was known before this: a device that was ended since is no longer theirs.
  if (await isDeviceLeft(deps.db.read, actor.device)) throw new ServiceError('address-unproven');
  return { opened, grounds, shown: new Set() };
}

/** An open that goes on, as it stands or as it stood a moment ago. @throws ServiceError `not-open-here` */
export async function standingOpen(
  deps: Deps,
  actor: ReaderActor,
  id: LicenceId,
): Promise<Standing> {
  const { value, generation } = await hold(deps.db, `${id} ${actor.device}`, () =>
    readStanding(deps, actor, id),
  );
  return { ...value, generation };
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

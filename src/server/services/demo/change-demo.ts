import 'server-only';
import type { DemoBar, DemoInput, Pretence } from '@/contracts/demo';
import { mailroomAddresses } from '@/server/repositories/mailing/mail-repository';
import { setClockOffset } from '@/server/repositories/staff/organisation-repository';
import { findRecipients } from '@/server/repositories/people/recipient-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';

/** Networks to open from, one in each place of the invented coast; one is where nobody was addressed. */
const NETWORKS = [
  '203.0.113.24',
  '198.51.100.12',
  '203.0.113.61',
  '192.0.2.40',
  '198.51.100.80',
  '203.0.113.120',
  '198.51.100.40',
  '203.0.113.150',
  '198.51.100.200',
];

const DEVICES = [
  {
    name: 'A laptop',
    agent: 'Mozilla/5.0 (X11; Linux x86_64; rv:130.0) Gecko/20100101 Firefox/130.0',
  },
  {
    name: 'A phone',
    agent: 'Mozilla/5.0 (Android 14; Mobile; rv:130.0) Gecko/130.0 Firefox/130.0',
  },
  {
    name: 'A borrowed computer',
    agent: 'Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:115.0) Gecko/20100101 Firefox/115.0',
  },
];

/** The demo's bar: mailboxes, places, devices and the clock. */
export async function viewDemo(deps: Deps, pretence: Pretence): Promise<DemoBar | null> {
  if (deps.demo === null) return null;
  const addresses = await mailroomAddresses(deps.db.read);
  const known = new Map(
    (await findRecipients(deps.db.read, addresses)).map((row) => [row.address, row.name]),
  );
  return {
    now: deps.clock.now(),
    ahead: deps.demo.offset(),
    pretence,
    devices: DEVICES,
    mailboxes: addresses.map((address) => ({ address, name: known.get(address) ?? '' })),
    places: NETWORKS.flatMap((network) => {
      const place = deps.places.find(network);
      return place === null ? [] : [{ network, name: place.name }];
    }),
  };
}

/**
 * Puts the demo's clock forward. Nothing can be taken back to before it happened, so it never goes back.
 *
 * @throws ServiceError `NOT_FOUND` on a database that is no demo
 */
export async function changeDemo(
  deps: Deps,
  actor: StaffActor,
  { forward = 0 }: DemoInput,
): Promise<{ readonly now: number }> {
  const { demo } = deps;
  if (demo === null) throw new ServiceError('no-page');
  if (forward > 0) {
    const offset = demo.offset() + forward;
    await deps.db.write(async (tx) => {
      await setClockOffset(tx, offset);
      await record(deps, tx, {
        action: 'demo.changed',
        outcome: 'done',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: deps.clock.now(),
        details: { forward },
      });
    });
    demo.setOffset(offset);
    deps.live.touch();
  }
  return { now: deps.clock.now() };
}

// Passkeys as an attacker sees them: what of an answer has to be right, whose it has to be, and what
// the mailbox alone is worth once there is one.
import { eq, sql } from 'drizzle-orm';
import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { DAY, HOUR, MINUTE } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { NO_LIMITS } from '@/core/policy/ceiling';
import type { DispatchInput } from '@/contracts/dispatch';
import { devices } from '@/server/db/schema/reading';
import { createLimits } from '@/server/limits/limits';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { listPasskeys } from '@/server/repositories/reading/passkey-repository';
import { findDeviceByToken } from '@/server/repositories/reading/reader-repository';
import type { ReaderActor } from '@/server/services/base/deps';
import { viewPerson } from '@/server/services/people/manage-people';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { beginEntering, enterByPasskey } from '@/server/services/reading/enter-by-passkey';
import { openDocument } from '@/server/services/reading/open-document';
import {
  beginPasskey,
  finishPasskey,
  removeOwnPasskey,
  removePasskeysOf,
} from '@/server/services/reading/passkeys';
import { Authenticator } from '../support/authenticator';
import {
  dispatch,
  drawing,
  newPublicKey,
  protect,
  prove,
  startProduct,
  stranger,
  type Product,
} from '../support/product';

let product: Product;
let address: string;
let token: string;
let document: DocumentId;
let reader: ReaderActor;
let people = 0;

async function send(conditions: DispatchInput['terms']['conditions']): Promise<void> {
  document = await protect(product, await drawing(1));
  const sent = await dispatch(product, [document], [address], {
    ...(conditions === undefined ? {} : { conditions }),
  });
  token = sent.tokenOf(address);
}

beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});
beforeEach(async () => {
  product = { ...product, deps: { ...product.deps, limits: createLimits() } };
  people++;
  address = `sanna.${String(people)}@brackwater.example`;
  await send({ passkey: true });
  reader = await prove(product, token, address);
});

const open = (actor: ReaderActor) => openDocument(product.deps, actor, { token, document });
const now = () => product.clock.now();
const later = (ms: number) => {
  product.clock.set(now() + ms);
};
const entries = async () =>
  (await listEntries(product.deps.db.read, {}, 50)).map(({ entry }) => entry);

/** Makes a passkey on a device that has just proven the address. */
async function make(actor = reader): Promise<Authenticator> {
  const authenticator = new Authenticator(product.deps.publicUrl);
  const asked = await beginPasskey(product.deps, actor, { another: true });
  if (asked.kind !== 'make') throw new Error('a passkey was asked for');
  const answer = await authenticator.make(asked.options);
  await finishPasskey(product.deps, actor, { kind: 'make', answer });
  return authenticator;
}

async function asked(actor: ReaderActor) {
  const found = await beginPasskey(product.deps, actor, { another: false });
  if (found.kind !== 'use') throw new Error('there is no passkey');
  return found.options;
}

async function use(authenticator: Authenticator, actor: ReaderActor): Promise<ReaderActor> {
  const answer = await authenticator.use(await asked(actor));
  await finishPasskey(product.deps, actor, { kind: 'use', answer });
  return { ...actor, passkeyAt: now() };
}

describe('a document that asks for a passkey', () => {
  test('opens with one that is made after the code, for half a day on that device', async () => {
    expect(await open(reader)).toMatchObject({ outcome: 'refused', reason: 'passkey-needed' });
    const authenticator = await make();
    const used = { ...reader, passkeyAt: now() };
    expect(await open(used)).toMatchObject({ outcome: 'granted' });
    expect(await open(await prove(product, token, address))).toMatchObject({
      reason: 'passkey-needed',
    });
    later(13 * HOUR);
    const back = await prove(product, token, address);
    expect(await open(back)).toMatchObject({ reason: 'passkey-needed' });
    expect(await open(await use(authenticator, back))).toMatchObject({ outcome: 'granted' });
  });

  test('asks for it by a ceiling as well, whatever the grant says', async () => {
    await send(undefined);
    expect(await open(reader)).toMatchObject({ outcome: 'granted' });
    await putCeiling(product.deps, product.ida, {
      level: 'document',
      subject: document,
      limits: { ...NO_LIMITS, passkey: true },
      seen: null,
    });
    expect(await open(reader)).toMatchObject({ outcome: 'refused', reason: 'passkey-needed' });
    await make();
    expect(await open({ ...reader, passkeyAt: now() })).toMatchObject({ outcome: 'granted' });
  });
});

describe('the mailbox alone', () => {
  test('makes no second passkey once there is one, and removes none', async () => {
    await make();
    const thief = await prove(product, token, address);
    expect(await beginPasskey(product.deps, thief, { another: true })).toMatchObject({
      kind: 'use',
    });
    const [own] = await listPasskeys(product.deps.db.read, thief.address);
    if (own === undefined) throw new Error('there is no passkey');
    await expect(removeOwnPasskey(product.deps, thief, { passkey: own.id })).rejects.toMatchObject({
      problem: 'passkey-first',
    });
  });

  test('makes no second one either where both begin before the first is there', async () => {
    const thief = await prove(product, token, address);
    const first = await beginPasskey(product.deps, thief, { another: false });
    if (first.kind !== 'make') throw new Error('there is a passkey');
    await make();
    const answer = await new Authenticator(product.deps.publicUrl).make(first.options);
    await expect(
      finishPasskey(product.deps, thief, { kind: 'make', answer }),
    ).rejects.toMatchObject({ problem: 'passkey-first' });
    expect(await listPasskeys(product.deps.db.read, reader.address)).toHaveLength(1);
  });

  test('makes no first one by what was asked before the others were removed', async () => {
    const { deps, ida } = product;
    await make();
    later(31 * MINUTE);
    const { challenge } = await asked(reader);
    await removePasskeysOf(deps, ida, { id: reader.recipient ?? 'rcp_' });
    const site = { id: new URL(deps.publicUrl).hostname };
    const answer = await new Authenticator(deps.publicUrl).make({ challenge, rp: site } as never);
    await expect(finishPasskey(deps, reader, { kind: 'make', answer })).rejects.toMatchObject({
      problem: 'passkey-needs-proof',
    });
  });

  test('makes the first one only soon after the code was entered', async () => {
    later(31 * MINUTE);
    await expect(beginPasskey(product.deps, reader, { another: false })).rejects.toMatchObject({
      problem: 'passkey-needs-proof',
    });
  });
});

describe('an answer is not good', () => {
  const refused = { problem: 'passkey-refused' };

  test.each([
    ['for another site', { origin: 'https://elsewhere.example' }],
    ['without asking who uses it', { verified: false }],
    ['of a copy, which counts from an earlier use', { counter: 0 }],
  ])('%s', async (_name, how) => {
    const authenticator = await make();
    const used = await use(authenticator, reader);
    const answer = await authenticator.use(await asked(used), how);
    await expect(finishPasskey(product.deps, used, { kind: 'use', answer })).rejects.toMatchObject(
      refused,
    );
    expect((await entries())[0]).toMatchObject({ action: 'passkey.used', outcome: 'refused' });
  });

  test('a second time, or twenty times at once', async () => {
    const authenticator = await make();
    const answer = await authenticator.use(await asked(reader));
    const tries = await Promise.allSettled(
      Array.from({ length: 20 }, () =>
        finishPasskey(product.deps, reader, { kind: 'use', answer }),
      ),
    );
    expect(tries.filter(({ status }) => status === 'fulfilled')).toHaveLength(1);
  });

  test('after five minutes', async () => {
    const authenticator = await make();
    const answer = await authenticator.use(await asked(reader));
    later(5 * MINUTE);
    await expect(
      finishPasskey(product.deps, reader, { kind: 'use', answer }),
    ).rejects.toMatchObject(refused);
  });

  test('where it is somebody else’s, or was asked of another browser', async () => {
    const authenticator = await make();
    const other = await prove(product, token, `else.${String(people)}@class.example`);
    const theirs = await make(other);
    const answer = await theirs.use(await asked(reader));
    await expect(
      finishPasskey(product.deps, reader, { kind: 'use', answer }),
    ).rejects.toMatchObject(refused);
    const moved = await authenticator.use(await asked(reader));
    await expect(
      finishPasskey(product.deps, other, { kind: 'use', answer: moved }),
    ).rejects.toMatchObject(refused);
  });

  test('where it is no answer at all', async () => {
    await make();
    await asked(reader);
    const answer = { id: 'x', response: {} } as never;
    await expect(
      finishPasskey(product.deps, reader, { kind: 'use', answer }),
    ).rejects.toMatchObject(refused);
  });

  test('where another program wrote the passkey into the database', async () => {
    const authenticator = await make();
    const answer = await authenticator.use(await asked(reader));
    await product.deps.db.read.run(
      sql`UPDATE passkeys SET label = 'Mine' WHERE address = ${address}`,
    );
    await expect(
      finishPasskey(product.deps, reader, { kind: 'use', answer }),
    ).rejects.toMatchObject(refused);
    // Nor does spoiling it make room for another.
    await expect(beginPasskey(product.deps, reader, { another: false })).rejects.toMatchObject({
      problem: 'rows-not-ours',
    });
  });
});

describe('coming in by a passkey in place of a code', () => {
  async function enter(authenticator: Authenticator, kept = false) {
    const { deps } = product;
    const actor = stranger('somewhere');
    const { options } = await beginEntering(deps, actor);
    expect(options.allowCredentials ?? []).toEqual([]);
    const { deviceToken } = await enterByPasskey(deps, actor, {
      answer: await authenticator.use(options),
      kept,
      publicKey: await newPublicKey(),
    });
    const mac = deps.vault.mac('device', deviceToken);
    const device = await findDeviceByToken(deps.db.read, mac, now());
    if (device === null) throw new Error('no device');
    const { id, provenAt, passkeyAt } = device;
    return { ...reader, device: id, kept, provenAt, passkeyAt };
  }

  test('opens what asks for a passkey at once', async () => {
    const authenticator = await make();
    expect(await open(await enter(authenticator))).toMatchObject({ outcome: 'granted' });
    expect((await entries()).find(({ action }) => action === 'passkey.used')).toMatchObject({
      outcome: 'granted',
      details: { inPlaceOfCode: true },
    });
  });

  test('proves no mailbox: where that is asked for again, a code is', async () => {
    await send({ proveEvery: DAY });
    const authenticator = await make();
    expect(await open(await enter(authenticator))).toMatchObject({ outcome: 'granted' });
    later(2 * DAY);
    expect(await open(await enter(authenticator, true))).toMatchObject({
      outcome: 'refused',
      reason: 'prove-again',
    });
  });

  test('is refused to a passkey that was removed, by its owner or by staff', async () => {
    const { deps, ida } = product;
    const authenticator = await make();
    const used = { ...reader, passkeyAt: now() };
    const [own] = await listPasskeys(deps.db.read, used.address);
    if (own === undefined) throw new Error('there is no passkey');
    const other = await make(used);
    await removeOwnPasskey(deps, used, { passkey: own.id });
    await expect(enter(authenticator)).rejects.toMatchObject({ problem: 'passkey-refused' });
    const recipient = reader.recipient ?? 'rcp_';
    expect((await viewPerson(deps, ida, { id: recipient })).passkeys).toHaveLength(1);
    await removePasskeysOf(deps, ida, { id: recipient });
    await expect(enter(other)).rejects.toMatchObject({ problem: 'passkey-refused' });
    await expect(removePasskeysOf(deps, ida, { id: recipient })).rejects.toMatchObject({
      problem: 'passkey-unknown',
    });
  });

  test('once staff removed them, what was used before counts no more', async () => {
    await make();
    const recipient = reader.recipient ?? 'rcp_';
    await removePasskeysOf(product.deps, product.ida, { id: recipient });
    const [device] = await product.deps.db.read
      .select({ passkeyAt: devices.passkeyAt })
      .from(devices)
      .where(eq(devices.id, reader.device));
    expect(device).toEqual({ passkeyAt: null });
  });

  test('is limited by network', async () => {
    const { deps } = product;
    const actor = stranger('flood');
    const tries = await Promise.allSettled(
      Array.from({ length: 200 }, () => beginEntering(deps, actor)),
    );
    expect(tries.some(({ status }) => status === 'rejected')).toBe(true);
  });
});

import { createHash } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, test, vi } from 'vitest';
import { DAY } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { createLimits } from '@/server/limits/limits';
import { isDeviceLeft } from '@/server/repositories/reading/reader-repository';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import type { ReaderActor } from '@/server/services/base/deps';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { readMailroom } from '@/server/services/demo/read-mailroom';
import { viewPerson } from '@/server/services/people/manage-people';
import { openDocument } from '@/server/services/reading/open-document';
import {
  endOwnDevice,
  leaveDevice,
  nameOwnDevice,
  ownDevices,
  shutOutDevice,
} from '@/server/services/reading/own-devices';
import { enterCode, requestCode } from '@/server/services/reading/prove-address';
import {
  acceptNotice,
  putNotice,
  readNotice,
  viewNotice,
} from '@/server/services/reading/reader-notice';
import { sentToYou } from '@/server/services/reading/sent-to-you';
import { askForMore } from '@/server/services/requests/ask-for-more';
import { revokeDocument } from '@/server/services/access/revoke-document';
import {
  dispatch,
  drawing,
  newestCode,
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
let documents: readonly [DocumentId, DocumentId];
let reader: ReaderActor;
let people = 0;

beforeAll(async () => {
  product = await startProduct();
});
afterAll(async () => {
  await product.close();
});
beforeEach(async () => {
  people++;
  address = `rune.${String(people)}@brackwater.example`;
  const bytes = await drawing(1);
  documents = [await protect(product, bytes), await protect(product, bytes)];
  token = (await dispatch(product, [documents[0]], [address])).tokenOf(address);
  product.clock.set(product.clock.now() + 1);
  await dispatch(product, [documents[1]], [address]);
  reader = await prove(product, token, address);
});

const entries = async () =>
  (await listEntries(product.deps.db.read, {}, 50)).map(({ entry }) => entry);

describe('what was sent to somebody', () => {
  test('comes from every dispatch, each document once, the newest first', async () => {
    product.clock.set(product.clock.now() + 1);
    await dispatch(product, [documents[0]], [address, 'other@class.example']);
    const sent = await sentToYou(product.deps, reader);
    expect(sent.documents.map(({ id }) => id)).toEqual([documents[0], documents[1]]);
    expect(sent.documents.map(({ state }) => state.open)).toEqual([true, true]);
    expect(sent).toMatchObject({ address, devices: [{ isThis: true, openedAt: null }] });
  });

  test('says what does not open and why, and stays when access ends', async () => {
    await revokeDocument(product.deps, product.ida, {
      id: documents[1],
      reason: 'Withdrawn',
    });
    const sent = await sentToYou(product.deps, reader);
    expect(sent.documents.find(({ id }) => id === documents[1])?.state).toMatchObject({
      open: false,
      reason: 'document-revoked',
    });
    const now = product.clock.now();
    product.clock.set(now + 400 * DAY);
    const later = await prove(product, token, address);
    expect((await sentToYou(product.deps, later)).documents).toMatchObject([
      { state: { open: false } },
      { state: { open: false, reason: 'expired' } },
    ]);
    product.clock.set(now);
  });

  test('is nobody else’s, and looking at it is not an open and not a refusal', async () => {
    await revokeDocument(product.deps, product.ida, { id: documents[1], reason: 'Withdrawn' });
    const before = (await entries())[0]?.sequence;
    const stranger = await prove(product, token, `else.${String(people)}@class.example`);
    expect((await sentToYou(product.deps, stranger)).documents).toEqual([]);
    await sentToYou(product.deps, reader);
    const since = (await entries()).filter(({ sequence }) => sequence > (before ?? 0));
    expect(since.map(({ action }) => action)).not.toContain('document.opened');
  });

  test('opens from the list, and is asked for there', async () => {
    const opened = await openDocument(product.deps, reader, {
      token: null,
      document: documents[1],
    });
    expect(opened.outcome).toBe('granted');
    const asked = await askForMore(product.deps, reader, {
      token: null,
      document: documents[1],
      right: 'print',
      until: null,
      reason: 'For the yard',
    });
    expect(asked).toHaveLength(1);
    const sent = await sentToYou(product.deps, reader);
    expect(sent.documents.find(({ id }) => id === documents[1])?.requests).toEqual(asked);
    expect(sent.devices[0]?.openedAt).toBe(product.clock.now());
  });

  test('from the list nothing opens that was sent to others', async () => {
    const other = await protect(product, await drawing(1));
    await dispatch(product, [other], ['other@class.example']);
    const refused = await openDocument(product.deps, reader, { token: null, document: other });
    expect(refused).toMatchObject({ outcome: 'refused', reason: 'not-addressed', sender: null });
    const [entry] = await entries();
    expect(entry).toMatchObject({ action: 'document.opened', outcome: 'refused' });
    expect(entry?.dispatch).toBeNull();
    await expect(
      askForMore(product.deps, reader, {
        token: null,
        document: other,
        right: 'print',
        until: null,
        reason: 'Please',
      }),
    ).rejects.toMatchObject({ problem: 'not-sent-here' });
  });
});

describe('a code without a link', () => {
  const ask = (to: string) => requestCode(product.deps, stranger(), { token: null, address: to });
  const mailsTo = async (to: string) => {
    await deliverMail(product.deps);
    return (await readMailroom(product.deps, { address: to })).messages.filter(({ subject }) =>
      /^\d{3} \d{3} /.test(subject),
    ).length;
  };

  test('goes to those who were sent something, and to no stranger, with the same answer', async () => {
    const unknown = `nobody.${String(people)}@class.example`;
    const before = await mailsTo(address);
    expect(await ask(unknown)).toEqual(await ask(address));
    expect(await mailsTo(unknown)).toBe(0);
    expect(await mailsTo(address)).toBe(before + 1);
  });

  test('what is asked from a network that is held back uses up nothing of everybody’s', async () => {
    const limits = { ...createLimits(), codesInAll: vi.fn(() => Promise.resolve(0)) };
    const flood = { ...product.deps, limits };
    const from = stranger('flood', '192.0.2.200');
    let held = 0;
    for (let i = 0; i < 60; i++)
      await requestCode(flood, from, {
        token: null,
        address: `made.up.${String(i)}@class.example`,
      }).catch(() => {
        held++;
      });
    expect(held).toBeGreaterThan(20);
    expect(limits.codesInAll).toHaveBeenCalledTimes(60 - held);
  });

  test('is worth nothing with a link, nor a link’s code without one', async () => {
    const enter = async (by: string | null, code: string) =>
      enterCode(product.deps, stranger(), {
        token: by,
        address,
        code,
        kept: true,
        publicKey: await newPublicKey(),
      });
    await ask(address);
    const code = await newestCode(product, address);
    await expect(enter(token, code)).rejects.toMatchObject({ problem: 'code-wrong' });
    await requestCode(product.deps, stranger(), { token, address });
    await expect(enter(null, await newestCode(product, address))).rejects.toMatchObject({
      problem: 'code-wrong',
    });
    await expect(enter(null, code)).resolves.toHaveProperty('deviceToken');
  });
});

describe('devices', () => {
  // Every request of the reader begins with looking for its device.
  const isOver = (actor: ReaderActor) => isDeviceLeft(product.deps.db.read, actor.device);

  test('one that is ended is over; the others go on; the ledger says so', async () => {
    const second = await prove(product, token, address);
    const left = await endOwnDevice(product.deps, reader, { device: second.device });
    expect(left.map(({ id }) => id)).toEqual([reader.device]);
    expect([await isOver(reader), await isOver(second)]).toEqual([false, true]);
    expect((await entries()).find(({ action }) => action === 'device.ended')).toMatchObject({
      device: second.device,
      recipient: reader.recipient,
      actor: { kind: 'recipient' },
    });
    await expect(
      endOwnDevice(product.deps, reader, { device: second.device }),
    ).rejects.toMatchObject({ problem: 'device-unknown' });
  });

  test('of somebody else is neither ended nor named', async () => {
    const theirs = await prove(product, token, `else.${String(people)}@class.example`);
    const input = { device: theirs.device };
    await expect(endOwnDevice(product.deps, reader, input)).rejects.toMatchObject({
      problem: 'device-unknown',
    });
    await expect(
      nameOwnDevice(product.deps, reader, { ...input, name: 'Mine' }),
    ).rejects.toMatchObject({ problem: 'device-unknown' });
    expect(await ownDevices(product.deps, theirs)).toMatchObject([{ isThis: true }]);
  });

  test('have names, which are theirs alone and can be taken back', async () => {
    const named = await nameOwnDevice(product.deps, reader, {
      device: reader.device,
      name: 'The yard’s laptop',
    });
    expect(named).toMatchObject([{ name: 'The yard’s laptop' }]);
    expect(
      await nameOwnDevice(product.deps, reader, { device: reader.device, name: '' }),
    ).toMatchObject([{ name: 'Firefox on Linux' }]);
  });

  test('staff see them with their ends, and shut out one', async () => {
    const second = await prove(product, token, address);
    const id = reader.recipient ?? 'rcp_';
    const person = await viewPerson(product.deps, product.ida, { id });
    expect(person.devices.map((device) => device.id).sort()).toEqual(
      [reader.device, second.device].sort(),
    );
    await shutOutDevice(product.deps, product.ida, { id, device: second.device });
    expect([await isOver(reader), await isOver(second)]).toEqual([false, true]);
    const stays = await viewPerson(product.deps, product.ida, { id });
    expect(stays.devices.map((device) => device.id)).toEqual([reader.device]);
    const theirs = await prove(product, token, `else.${String(people)}@class.example`);
    await expect(
      shutOutDevice(product.deps, product.ida, { id, device: theirs.device }),
    ).rejects.toMatchObject({ problem: 'device-unknown' });
  });

  test('signing out ends this one, and is on the ledger', async () => {
    await leaveDevice(product.deps, reader);
    expect((await entries())[0]).toMatchObject({
      action: 'device.ended',
      device: reader.device,
    });
    const again = await prove(product, token, address);
    expect(await ownDevices(product.deps, again)).toHaveLength(1);
  });
});

describe('a notice', () => {
  const texts = { en: 'Keep it to yourself.', de: 'Behalten Sie es für sich.' };
  const open = (actor = reader) =>
    openDocument(product.deps, actor, { token, document: documents[0] });
  const accept = (version: number, language: 'en' | 'fr' = 'en', actor = reader) =>
    acceptNotice(product.deps, actor, { version, language });

  test('is accepted before the first open, by each person once, and kept with its wording', async () => {
    const { version } = await putNotice(product.deps, product.ida, { texts });
    await expect(open()).rejects.toMatchObject({ problem: 'notice-due' });
    // Of somebody who could open nothing it is not asked, and a stranger is not shown it.
    const stranger = await prove(product, token, `else.${String(people)}@class.example`);
    await expect(open(stranger)).resolves.toMatchObject({ reason: 'not-addressed' });
    await expect(readNotice(product.deps, stranger)).rejects.toMatchObject({
      problem: 'not-sent-here',
    });
    expect(await readNotice(product.deps, reader)).toMatchObject({ version, texts });
    await Promise.all(Array.from({ length: 20 }, () => accept(version)));
    expect(await viewNotice(product.deps)).toMatchObject({ accepted: 1 });
    const kept = (await entries()).filter(({ action }) => action === 'notice.accepted');
    expect(kept).toHaveLength(1);
    expect(kept[0]).toMatchObject({
      recipient: reader.recipient,
      details: {
        version,
        language: 'en',
        text: createHash('sha256').update(texts.en).digest('hex'),
      },
    });
    await expect(open()).resolves.toHaveProperty('outcome', 'granted');
  });

  test('worded anew is asked again, and nothing else than it stands is accepted', async () => {
    const before = await putNotice(product.deps, product.ida, { texts });
    await accept(before.version);
    const { version } = await putNotice(product.deps, product.ida, {
      texts: { en: 'Other words.' },
    });
    await expect(open()).rejects.toMatchObject({ problem: 'notice-due' });
    await expect(accept(before.version)).rejects.toMatchObject({ problem: 'notice-changed' });
    await expect(accept(version, 'fr')).rejects.toMatchObject({ problem: 'notice-changed' });
    await accept(version);
    await expect(open()).resolves.toHaveProperty('outcome', 'granted');
  });

  test('without words asks nobody; the same words are no new wording', async () => {
    const { version } = await putNotice(product.deps, product.ida, { texts });
    expect(await putNotice(product.deps, product.ida, { texts })).toMatchObject({ version });
    await putNotice(product.deps, product.ida, { texts: {} });
    await expect(open()).resolves.toHaveProperty('outcome', 'granted');
  });
});

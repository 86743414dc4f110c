// Each refusal that a recipient can meet: met once, and the sentence about it held to be true: what it
// says is so, when it says something ends or begins it does, and what it tells them to do helps.
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { DAY, HOUR, MINUTE } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import type { RefusalReason } from '@/core/policy/decide';
import { NO_LIMITS } from '@/core/policy/ceiling';
import type { Right } from '@/core/policy/rights';
import type { DispatchInput } from '@/contracts/dispatch';
import { grants } from '@/server/db/schema/access';
import { findDeviceByToken, isDeviceLeft } from '@/server/repositories/reading/reader-repository';
import type { ReaderActor } from '@/server/services/base/deps';
import { grantRows } from '@/server/services/access/grant-rows';
import { reinstateDocument, revokeDocument } from '@/server/services/access/revoke-document';
import { revokeGrants } from '@/server/services/access/revoke-grants';
import { destroyKey } from '@/server/services/documents/destroy-keys';
import { viewDocument } from '@/server/services/documents/view-document';
import { blockPerson } from '@/server/services/people/manage-people';
import { putCeiling, viewCeilings } from '@/server/services/policy/manage-ceilings';
import { openDocument } from '@/server/services/reading/open-document';
import { endOwnDevice } from '@/server/services/reading/own-devices';
import { enterCode, requestCode } from '@/server/services/reading/prove-address';
import { beginPasskey, finishPasskey } from '@/server/services/reading/passkeys';
import { answerRequests } from '@/server/services/requests/answer-requests';
import { askForMore } from '@/server/services/requests/ask-for-more';
import { Authenticator } from '../support/authenticator';
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

type Terms = Partial<DispatchInput['terms']>;
type Met = {
  readonly address: string;
  readonly token: string;
  readonly document: DocumentId;
  readonly reader: ReaderActor;
};
type Case = {
  readonly terms?: (now: number) => Terms;
  /** Brings it about; what is returned asks in place of the reader. */
  readonly happen?: (met: Met) => Promise<ReaderActor | undefined>;
  /** The moment that stands with the sentence. */
  readonly at?: (start: number) => number;
  /** Does what the sentence says; null: it says that nothing helps but writing. */
  readonly next: ((met: Met) => Promise<ReaderActor>) | null;
};

let product: Product;
let people = 0;

const open = ({ token, document }: Met, reader: ReaderActor) =>
  openDocument(product.deps, reader, { token, document });
const later = (ms: number) => {
  product.clock.set(product.clock.now() + ms);
};

/** Proves an address on a device that is remembered. */
async function proveKept({ token, address }: Met): Promise<ReaderActor> {
  const { deps, clock } = product;
  const actor = stranger('kept');
  await requestCode(deps, actor, { token, address });
  const code = await newestCode(product, address);
  const { deviceToken } = await enterCode(deps, actor, {
    token,
    address,
    code,
    kept: true,
    publicKey: await newPublicKey(),
  });
  const mac = deps.vault.mac('device', deviceToken);
  const device = await findDeviceByToken(deps.db.read, mac, clock.now());
  if (device === null) throw new Error('no device');
  const reader = await prove(product, token, address);
  return { ...reader, device: device.id, kept: true, provenAt: device.createdAt };
}

async function recipientOf({ document, address }: Met) {
  const rows = await grantRows(product.deps, product.ida, { document });
  const row = rows.find((each) => each.address === address);
  if (row === undefined) throw new Error('nothing was given');
  return row;
}

/** Writes to the sender, who gives what they ask: more time, or another open. */
async function askAndGet(met: Met, until: number | null): Promise<ReaderActor> {
  const [request] = await askForMore(product.deps, met.reader, {
    token: met.token,
    document: met.document,
    right: null,
    until,
    reason: 'Once more, please',
  });
  if (until !== null)
    await answerRequests(product.deps, product.ida, {
      requests: request === undefined ? [] : [request.id],
      right: null,
      until,
      prints: null,
      words: '',
    });
  return met.reader;
}

/** What the document's ceiling leaves; null: all of it. */
async function ceilOf(document: DocumentId, rights: readonly Right[] | null): Promise<void> {
  const { deps, ida } = product;
  const now = (await viewCeilings(deps)).find(({ subject }) => subject === document);
  const limits = { ...NO_LIMITS, rights };
  await putCeiling(deps, ida, {
    level: 'document',
    subject: document,
    limits,
    seen: now?.setAt ?? null,
  });
}

const CASES: Record<RefusalReason, Case> = {
  'identity-not-proven': {
    happen: async ({ reader }) => {
      await endOwnDevice(product.deps, reader, { device: reader.device });
      return undefined;
    },
    next: ({ token, address }) => prove(product, token, address),
  },
  'not-addressed': {
    happen: ({ token }) => prove(product, token, `other.${String(people)}@elsewhere.example`),
    next: ({ reader }) => Promise.resolve(reader),
  },
  'recipient-blocked': {
    happen: async (met) => {
      const { recipientId } = await recipientOf(met);
      await blockPerson(product.deps, product.ida, { id: recipientId, blocked: true });
      return undefined;
    },
    next: null,
  },
  'document-revoked': {
    happen: async ({ document }) => {
      await revokeDocument(product.deps, product.ida, { id: document });
      return undefined;
    },
    at: (start) => start,
    next: async ({ document, reader }) => {
      await reinstateDocument(product.deps, product.ida, { id: document });
      return reader;
    },
  },
  'not-yet': {
    terms: (now) => ({ from: now + 2 * HOUR }),
    at: (start) => start + 2 * HOUR,
    next: ({ reader }) => {
      later(2 * HOUR);
      return Promise.resolve(reader);
    },
  },
  expired: {
    terms: (now) => ({ until: now + HOUR }),
    happen: () => {
      later(2 * HOUR);
      return Promise.resolve(undefined);
    },
    at: (start) => start + HOUR,
    next: (met) => askAndGet(met, product.clock.now() + DAY),
  },
  revoked: {
    happen: async (met) => {
      const { id } = await recipientOf(met);
      await revokeGrants(product.deps, product.ida, { grants: [id] });
      return undefined;
    },
    at: (start) => start,
    next: null,
  },
  'key-destroyed': {
    happen: async ({ document }) => {
      const { reference } = await viewDocument(product.deps, product.ida, { id: document });
      await destroyKey(product.deps, product.ida, { id: document, typed: reference });
      return undefined;
    },
    next: null,
  },
  'prove-again': {
    terms: () => ({ conditions: { proveEvery: HOUR } }),
    happen: () => {
      later(2 * HOUR);
      return Promise.resolve(undefined);
    },
    next: ({ token, address }) => prove(product, token, address),
  },
  'passkey-needed': {
    terms: () => ({ conditions: { passkey: true } }),
    next: async ({ reader }) => {
      const { deps } = product;
      const asked = await beginPasskey(deps, reader, { another: false });
      if (asked.kind !== 'make') throw new Error('they had a passkey');
      const answer = await new Authenticator(deps.publicUrl).make(asked.options);
      await finishPasskey(deps, reader, { kind: 'make', answer });
      return { ...reader, passkeyAt: deps.clock.now() };
    },
  },
  'device-not-accepted': {
    terms: () => ({ conditions: { rememberedDevice: true } }),
    next: proveKept,
  },
  'too-many-devices': {
    terms: () => ({ conditions: { devices: 1 } }),
    happen: async (met) => {
      await open(met, met.reader);
      return prove(product, met.token, met.address);
    },
    next: ({ reader }) => Promise.resolve(reader),
  },
  'network-not-allowed': {
    terms: () => ({ conditions: { networks: ['198.51.100.0/24'] } }),
    next: ({ reader }) =>
      Promise.resolve({ ...reader, from: { ...reader.from, network: '198.51.100.30' } }),
  },
  'place-not-allowed': {
    terms: () => ({ conditions: { countries: ['XC'] } }),
    next: ({ reader }) =>
      Promise.resolve({ ...reader, from: { ...reader.from, network: '198.51.100.30' } }),
  },
  'hours-not-allowed': {
    terms: (now) => {
      // Of the organisation's zone, an hour ahead of UTC in winter: open for an hour, two hours from now.
      const minute = ((now + HOUR) % DAY) / MINUTE;
      const from = (minute + 120) % 1440;
      const days = [1, 2, 3, 4, 5, 6, 7] as const;
      return { conditions: { hours: { days: [...days], from, to: (from + 60) % 1440 } } };
    },
    at: (start) => start + 2 * HOUR,
    next: ({ reader }) => {
      later(2 * HOUR);
      return Promise.resolve(reader);
    },
  },
  'opens-used-up': {
    terms: () => ({ conditions: { opens: 1 } }),
    happen: async (met) => {
      await open(met, met.reader);
      return prove(product, met.token, met.address);
    },
    next: null,
  },
  'condition-unknown': {
    happen: async (met) => {
      const { id } = await recipientOf(met);
      const conditions = { tideBelow: 3 } as never;
      await product.deps.db.write((tx) =>
        tx.update(grants).set({ conditions }).where(eq(grants.id, id)),
      );
      return undefined;
    },
    next: null,
  },
  'read-not-allowed': {
    happen: async ({ document }) => {
      await ceilOf(document, ['print']);
      return undefined;
    },
    next: async ({ document, reader }) => {
      await ceilOf(document, null);
      return reader;
    },
  },
};

/** Somebody who was sent a document, and who asks for it once what the case is about has happened. */
async function meet({ terms, happen }: Case) {
  people++;
  const address = `met.${String(people)}@brackwater.example`;
  const start = product.clock.now();
  const document = await protect(product, await drawing(1));
  const given = { until: start + 30 * DAY, ...terms?.(start) };
  const { tokenOf } = await dispatch(product, [document], [address], given);
  const token = tokenOf(address);
  const met: Met = { address, token, document, reader: await prove(product, token, address) };
  return { start, met, asking: (await happen?.(met)) ?? met.reader };
}

const ALL = Object.entries(CASES);
// Nothing is asked of the policy for a device that is over: every request begins with looking at it.
const DECIDED = ALL.filter(([reason]) => reason !== 'identity-not-proven');

/** Codes are limited by network: each part has a product of its own. */
function withProduct(): void {
  beforeAll(async () => {
    product = await startProduct();
  });
  afterAll(async () => {
    await product.close();
  });
}

describe('what is said', () => {
  withProduct();
  test.each(DECIDED)('%s is what is said, with its moment', async (reason, each) => {
    const { start, met, asking } = await meet(each);
    expect(await open(met, asking)).toMatchObject({
      outcome: 'refused',
      reason,
      at: each.at?.(start) ?? null,
      // A stranger learns nothing: not even whose it is.
      sender: reason === 'not-addressed' ? null : { email: product.ida.email },
    });
  });

  test('a device that was ended has proven nothing any more', async () => {
    const { asking } = await meet(CASES['identity-not-proven']);
    expect(await isDeviceLeft(product.deps.db.read, asking.device)).toBe(true);
  });
});

describe('what to do', () => {
  withProduct();
  test.each(
    ALL.flatMap(([reason, each]) =>
      each.next === null ? [] : [[reason, each, each.next] as const],
    ),
  )('%s: what the sentence says helps', async (_reason, each, next) => {
    const { met } = await meet(each);
    expect(await open(met, await next(met))).toHaveProperty('outcome', 'granted');
  });
});

describe('where nothing else helps', () => {
  withProduct();
  test.each(ALL.filter(([, { next }]) => next === null))(
    '%s: only writing is left, and it comes to the sender',
    async (reason, each) => {
      const { met, asking } = await meet(each);
      const { token, document } = met;
      const message = { token, document, right: null, until: null, reason: 'Is this a mistake?' };
      const written = await askForMore(product.deps, asking, message);
      expect(written).toMatchObject([{ reason: 'Is this a mistake?', state: 'waiting' }]);
      expect(await open(met, asking)).toMatchObject({ outcome: 'refused', reason });
    },
  );
});

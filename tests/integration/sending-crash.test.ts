// The process ends after any step of sending: no message twice, none lost, and no link to nothing.
import { expect, test } from 'vitest';
import { DAY, MINUTE } from '@/core/base/time';
import { grants, links } from '@/server/db/schema/access';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents } from '@/server/db/schema/documents';
import { outbox } from '@/server/db/schema/mailing';
import type { Deps } from '@/server/services/base/deps';
import { sendHeld } from '@/server/services/dispatching/hold-dispatch';
import { sendDocuments } from '@/server/services/dispatching/send-documents';
import { deliverMail, settleInterrupted } from '@/server/services/mailing/deliver-mail';
import { proofAsked } from '@/server/services/reading/visit-link';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { putWorkSettings } from '@/server/services/base/work-settings';
import { START, drawing, protect, startProduct, type Product } from '../support/product';

const peopleOf = (step: number) => [
  `mira${String(step)}@yard.example`,
  `per${String(step)}@yard.example`,
];

/** A product that ends after so many commits: nothing after that one is done by it any more. */
function dying({ deps }: Product, commits: number, handed: string[]) {
  let left = commits;
  let isDead = false;
  let end: () => void = () => undefined;
  const dead = new Promise<void>((resolve) => {
    end = resolve;
  });
  const never = new Promise<never>(() => undefined);
  const counted =
    (write: Deps['db']['write']): Deps['db']['write'] =>
    async (work) => {
      if (isDead) return never;
      const result = await write(work);
      if (left-- > 0) return result;
      isDead = true;
      end();
      return never;
    };
  const db: Deps['db'] = {
    ...deps.db,
    write: counted(deps.db.write),
    writeAside: counted(deps.db.writeAside),
  };
  const mailer: Deps['mailer'] = {
    close: () => undefined,
    deliver: ({ id }) => {
      if (!isDead) handed.push(id);
      return isDead ? never : Promise.resolve();
    },
  };
  return { deps: { ...deps, db, mailer }, dead };
}

async function work(deps: Deps, product: Product, people: readonly string[] | null): Promise<void> {
  if (people !== null)
    await sendDocuments(deps, product.ida, {
      documents: [await firstDocument(product)],
      recipients: people.map((address) => ({ address, name: '', organisation: '' })),
      terms: { rights: ['read'], from: null, until: START + 9 * DAY, prints: null },
      subject: 'Round 2',
      note: '',
      watermark: [],
      delivery: 'mail',
    });
  product.clock.set(product.clock.now() + 3 * MINUTE);
  await sendHeld(deps);
  await deliverMail(deps);
}

async function firstDocument({ deps }: Product) {
  const [row] = await deps.db.read.select().from(documents);
  return row?.id ?? 'doc_';
}

test('after each commit in turn, and a start anew, everybody has one message that leads somewhere', async () => {
  const product = await startProduct();
  await protect(product, await drawing(1));
  await putWorkSettings(product.deps, product.ida, { heldFor: 2 });
  const { read } = product.deps.db;
  let ended = 0;
  for (let step = 0; ; step++) {
    const handed: string[] = [];
    const first = dying(product, step, handed);
    const isWhole = await Promise.race([
      work(first.deps, product, peopleOf(step)).then(() => true),
      first.dead.then(() => false),
    ]);
    // As the next start does.
    const second = dying(product, Number.MAX_SAFE_INTEGER, handed);
    await settleInterrupted(second.deps, true);
    await work(second.deps, product, null);
    expect([step, await read.$count(dispatches)]).toEqual([step, step + 1]);
    expect(await read.$count(grants)).toBe(2 * (step + 1));
    expect(new Set(handed).size).toBe(handed.length);
    const mails = (await read.select().from(outbox)).filter(({ toAddress }) =>
      peopleOf(step).includes(toAddress),
    );
    expect(mails).toHaveLength(2);
    expect(new Set(mails.map(({ toAddress }) => toAddress)).size).toBe(2);
    // What nobody can know is said, and not done a second time.
    const known = mails.filter(({ state }) => state === 'delivered').map(({ id }) => id);
    expect(handed).toEqual(expect.arrayContaining(known));
    expect(mails.filter(({ state }) => state !== 'delivered' && state !== 'unsure')).toEqual([]);
    for (const { token } of await read.select().from(links))
      expect(await proofAsked(product.deps, token)).toBe('address');
    const { publicKey } = product.deps.recorder.signer;
    expect((await verifyLedger(read, { publicKey })).problems).toEqual([]);
    if (isWhole) break;
    ended++;
  }
  await product.close();
  expect(ended).toBeGreaterThan(5);
}, 120_000);

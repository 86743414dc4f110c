import { mkdtempSync } from 'node:fs';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import type { GrantId } from '@/core/base/ids';
import { openDatabase, type Database } from '@/server/db/database';
import { grants } from '@/server/db/schema/access';
import { decideFor } from '@/server/services/policy/decide-access';
import type { Deps } from '@/server/services/base/deps';
import { dispatch, drawing, protect, prove, startProduct } from '../tests/support/product';
import { median, say, seconds } from './measure';

const ROUNDS = 9;
const DECISIONS = 300;
const CHANGES = 300;

type Integrity = Deps['integrity'];
const UNCHECKED: Integrity = {
  broken: () => Promise.resolve([]),
  unbalanced: () => Promise.resolve([]),
  isEndOurs: () => Promise.resolve(true),
  report: () => undefined,
};

/**
 * Times of two ways of doing the same, which take turns so that what slows the machine slows them
 * alike. In µs for one.
 */
async function inTurns(
  each: number,
  first: () => Promise<unknown>,
  second: () => Promise<unknown>,
): Promise<readonly [number, number]> {
  const times: [number[], number[]] = [[], []];
  for (let round = 0; round < ROUNDS; round++) {
    times[0].push(await seconds(first));
    times[1].push(await seconds(second));
  }
  return [(median(times[0]) / each) * 1e6, (median(times[1]) / each) * 1e6];
}

async function oneByOne(times: number, job: (i: number) => Promise<unknown>): Promise<void> {
  for (let i = 0; i < times; i++) await job(i);
}

function change(db: Database, ids: readonly GrantId[], i: number): Promise<unknown> {
  const id = ids[i % ids.length];
  if (id === undefined) throw new Error('no grants');
  return db.write((tx) =>
    tx
      .update(grants)
      .set({ revision: i + 2 })
      .where(eq(grants.id, id)),
  );
}

/** What seals cost: checked beside a decision, and made beside a change. */
export async function sealing(folder: string): Promise<void> {
  const product = await startProduct(mkdtempSync(path.join(folder, 'seals-')));
  const { deps } = product;
  const document = await protect(product, await drawing(1));
  const addresses = Array.from({ length: 200 }, (_, i) => `reader.${String(i)}@yard.example`);
  const sent = await dispatch(product, [document], addresses);
  const [address = ''] = addresses;
  const reader = await prove(product, sent.tokenOf(address), address);
  const decide = (integrity: Integrity) => () =>
    oneByOne(DECISIONS, () => decideFor({ ...deps, integrity }, deps.db.read, reader, document));
  const [checked, unchecked] = await inTurns(DECISIONS, decide(deps.integrity), decide(UNCHECKED));
  say(
    'seals: decided from the database, seals checked',
    `${checked.toFixed(0)} µs; without ${unchecked.toFixed(0)} µs = ${(checked / unchecked).toFixed(2)} x`,
    '',
  );

  await deps.db.checkpoint();
  const copy = path.join(folder, 'unsealed.db');
  await deps.db.copyTo(copy);
  const unsealed = await openDatabase(`file:${copy}`);
  const ids = (await deps.db.read.select({ id: grants.id }).from(grants)).map(({ id }) => id);
  const changing = (db: Database) => () => oneByOne(CHANGES, (i) => change(db, ids, i));
  const [sealed, plain] = await inTurns(CHANGES, changing(deps.db), changing(unsealed));
  say(
    'seals: a grant changed, a commit each',
    `${sealed.toFixed(0)} µs; without ${plain.toFixed(0)} µs = ${(sealed / plain).toFixed(2)} x`,
    '',
  );
  await unsealed.close();
  await product.close();
}

// The ledger is verified from the screen: with progress, against checkpoints that were kept
// outside, while others go on writing.
import { afterAll, beforeAll, expect, test } from 'vitest';
import { sql } from 'drizzle-orm';
import type { VerifyLine } from '@/contracts/ledger';
import { splitCheckpoints } from '@/core/ledger/checkpoint';
import { signLedger } from '@/server/repositories/ledger/ledger-writer';
import { listLedger } from '@/server/services/ledger/list-entries';
import { recordAlone } from '@/server/services/base/record';
import { newestCheckpoint, verifyOnScreen } from '@/server/services/ledger/verify-on-screen';
import { dispatch, drawing, protect, startProduct, type Product } from '../support/product';

let product: Product;
let kept: string;
beforeAll(async () => {
  product = await startProduct();
  await dispatch(product, [await protect(product, await drawing(1))], ['mira@yard.example']);
  await product.deps.db.write((tx) => signLedger(tx, product.deps.recorder, product.clock.now()));
  kept = await newestCheckpoint(product.deps);
});
afterAll(async () => {
  await product.close();
});

async function verify(checkpoints = ''): Promise<VerifyLine[]> {
  let text = '';
  for await (const piece of await verifyOnScreen(product.deps, product.ida, { checkpoints }))
    text += new TextDecoder().decode(piece);
  return text
    .trimEnd()
    .split('\n')
    .map((line) => JSON.parse(line) as VerifyLine);
}
const result = async (checkpoints?: string) => {
  const last = (await verify(checkpoints)).at(-1);
  if (last === undefined || !('verification' in last)) throw new Error('no result');
  return last.verification;
};

test('it tells how far it is and what came of it, and is recorded', async () => {
  const lines = await verify();
  expect(lines.some((line) => 'entries' in line)).toBe(true);
  const found = await result();
  expect(found).toMatchObject({ problems: [], checkpoints: 1, witnessed: null });
  expect((await listLedger(product.deps, product.ida, {})).rows[0]).toMatchObject({
    action: 'ledger.verified',
    who: 'Ida Roe',
  });
});

test('it says up to which checkpoint from outside it is proven, whatever stands around that in a mail', async () => {
  const size = splitCheckpoints(kept)[0]?.size ?? 0;
  expect(size).toBeGreaterThan(3);
  expect(await result(`Kept by the notary:\r\n\r\n${kept}\r\nRegards`)).toMatchObject({
    problems: [],
    witnessed: size,
  });
  await expect(verify('nothing of the kind')).rejects.toMatchObject({ code: 'INVALID' });
  expect((await result(kept.replace(/\n\d+\n/, '\n999\n'))).problems.length).toBeGreaterThan(0);
});

test('what is written meanwhile is no difference, and two are not made at once', async () => {
  const busy = { goesOn: true };
  const writing = (async () => {
    while (busy.goesOn) {
      await recordAlone(product.deps, {
        action: 'staff.viewed',
        outcome: 'done',
        actor: { kind: 'staff', id: product.ida.id },
        occurredAt: product.clock.now(),
      });
      await new Promise((resolve) => {
        setTimeout(resolve, 5);
      });
    }
  })();
  const problems: unknown[] = [];
  try {
    for (let round = 0; round < 5; round++) problems.push(...(await result()).problems);
  } finally {
    busy.goesOn = false;
    await writing;
  }
  expect(problems).toEqual([]);
  const first = await verifyOnScreen(product.deps, product.ida, { checkpoints: '' });
  await first.next();
  await expect(
    verifyOnScreen(product.deps, product.ida, { checkpoints: '' }),
  ).rejects.toMatchObject({ code: 'TOO_MANY' });
  await first.return();
  // Both were let in before either began.
  const both = await Promise.all(
    [1, 2].map(() => verifyOnScreen(product.deps, product.ida, { checkpoints: '' })),
  );
  const begun = await Promise.allSettled(both.map((lines) => lines.next()));
  expect(begun.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected']);
  await Promise.all(both.map((lines) => lines.return()));
});

test('a changed entry is named', async () => {
  await product.deps.db.write((tx) =>
    tx.run(
      sql`UPDATE ledger_entries SET body = replace(body, 'prints=null', 'prints=9')
        WHERE sequence = (SELECT min(sequence) FROM ledger_entries WHERE action = 'grant.given')`,
    ),
  );
  const { problems } = await result();
  expect(problems).toHaveLength(1);
  expect(problems[0]?.sequence).toBeGreaterThan(1);
});

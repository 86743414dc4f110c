// Text for a screen reader: only where an owner switched it on, of their documents, for that person.
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { sql } from 'drizzle-orm';
import type { DocumentId, LicenceId, RecipientId } from '@/core/base/ids';
import type { ReaderActor, StaffActor } from '@/server/services/base/deps';
import { listEntries } from '@/server/repositories/ledger/ledger-reader';
import { grantRows } from '@/server/services/access/grant-rows';
import { seeAs } from '@/server/services/policy/see-as';
import { setReadingAids } from '@/server/services/policy/reading-aids';
import { openDocument } from '@/server/services/reading/open-document';
import { noteCopied, readOutline, readText } from '@/server/services/reading/read-pages';
import { checkOpen } from '@/server/services/reading/watch-open';
import { joinStaff } from '../support/staff';
import { dispatch, drawing, protect, prove, startProduct, type Product } from '../support/product';

type Reader = { readonly actor: ReaderActor; readonly licence: LicenceId };

let product: Product;
let document: DocumentId;
let mira: Reader;
let per: Reader;
let other: StaffActor;

async function reader(
  sent: Awaited<ReturnType<typeof dispatch>>,
  address: string,
): Promise<Reader> {
  const token = sent.tokenOf(address);
  const actor = await prove(product, token, address);
  const result = await openDocument(product.deps, actor, { token, document });
  if (result.outcome !== 'granted') throw new Error(result.reason);
  return { actor, licence: result.licence };
}

beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(2), 'Frames');
  const sent = await dispatch(product, [document], ['mira@x.example', 'per@x.example']);
  mira = await reader(sent, 'mira@x.example');
  per = await reader(sent, 'per@x.example');
  other = await joinStaff(product, 'sender');
});
afterAll(async () => {
  await product.close();
});

const recipientOf = ({ actor }: Reader): RecipientId => actor.recipient ?? 'rcp_none';
const text = ({ actor, licence }: Reader) => readText(product.deps, actor, { licence, page: 1 });
const set = (by: StaffActor, on: boolean) =>
  setReadingAids(product.deps, by, { id: document, recipient: recipientOf(mira), on });

describe('reading aids', () => {
  test('are switched by who answers for the document, and by nobody else', async () => {
    await expect(set(other, true)).rejects.toMatchObject({ code: 'NOT_ALLOWED' });
    expect(await text(mira)).toMatchObject({ outcome: 'refused', reason: 'not-given' });
    await set(product.ida, true);
    await set(product.ida, true);
    const switched = (await listEntries(product.deps.db.read, {}, 50)).filter(
      ({ entry }) => entry.action === 'aids.switched',
    );
    expect(switched.map(({ entry }) => entry.details)).toMatchObject([{ on: true }]);
  });

  test('bring the text to that person alone, and what was sent says for what', async () => {
    const sent = await text(mira);
    expect('runs' in sent && sent.runs.length).toBeGreaterThan(0);
    expect(
      await readOutline(product.deps, mira.actor, { licence: mira.licence }),
    ).not.toHaveProperty('outcome');
    expect(await text(per)).toMatchObject({ outcome: 'refused', reason: 'not-given' });
    const [entry] = (await listEntries(product.deps.db.read, {}, 50)).filter(
      (each) => each.entry.action === 'text.sent',
    );
    expect(entry?.entry.details).toEqual({ page: 1, aids: true });
  });

  test('are no right to copy, and an open that goes on hears of them', async () => {
    expect(
      await noteCopied(product.deps, mira.actor, {
        licence: mira.licence,
        page: 1,
        characters: 3,
      }),
    ).toMatchObject({ outcome: 'refused' });
    expect(await checkOpen(product.deps, mira.actor, { licence: mira.licence })).toMatchObject({
      readingAids: true,
      rights: { copy: { granted: false } },
    });
    const rows = await grantRows(product.deps, product.ida, { document });
    expect(rows.map(({ address, readingAids }) => [address, readingAids])).toEqual([
      ['mira@x.example', true],
      ['per@x.example', false],
    ]);
    const seen = await seeAs(product.deps, product.ida, {
      document,
      recipient: recipientOf(mira),
    });
    expect(seen.explained.readingAids).toBe(true);
  });

  test('written into the database by another program bring nothing', async () => {
    await product.deps.db.read.run(
      sql`INSERT INTO reading_aids (id, owner_id, recipient_id, since)
        VALUES ('aid_foreign', ${product.ida.id}, ${recipientOf(per)}, 0)`,
    );
    expect(await text(per)).toMatchObject({ outcome: 'refused', reason: 'not-given' });
  });

  test('end at once where they are switched off', async () => {
    await set(product.ida, false);
    expect(await text(mira)).toMatchObject({ outcome: 'refused', reason: 'not-given' });
  });
});

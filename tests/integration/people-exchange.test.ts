import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { ledgerEntries } from '@/server/db/schema/ledger';
import { recipients } from '@/server/db/schema/people';
import {
  importPeople,
  importPeopleLines,
  previewPeople,
  takePeopleOut,
} from '@/server/services/people/exchange-people';
import { changePerson } from '@/server/services/people/manage-people';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { dispatch, drawing, protect, startProduct, type Product } from '../support/product';

let product: Product;
beforeAll(async () => {
  product = await startProduct();
  await dispatch(product, [await protect(product, await drawing(1))], ['mira@brackwater.example']);
});
afterAll(() => product.close());

const people = () => product.deps.db.read.select().from(recipients);
const bring = (text: string) => importPeople(product.deps, product.ida, text, () => undefined);
const LIST =
  'email,name,organisation,zone\nmira@brackwater.example,Mira Kolbe,Brackwater ' +
  'Yard,Europe/Oslo\njonas@brackwater.example,Jonas Feld,Brackwater ' +
  'Yard,\nansel@brackvater.example,Ansel,,\nno address,,,\n';

describe('a list of people', () => {
  test('is shown before it changes anything', async () => {
    const preview = await previewPeople(product.deps, product.ida, { text: LIST });
    expect(preview).toMatchObject({
      format: 'csv',
      added: 2,
      changed: 1,
      same: 0,
      problems: 1,
      doubtful: [{ domain: 'brackvater.example', like: 'brackwater.example', people: 1 }],
    });
    expect(preview.firstChanged).toEqual([
      {
        line: 2,
        address: 'mira@brackwater.example',
        before: '',
        after: 'Mira Kolbe, Brackwater Yard, Europe/Oslo',
      },
    ]);
    expect(preview.firstProblems).toEqual([
      { line: 5, what: '“no address” is not an email address' },
    ]);
    expect(await people()).toHaveLength(1);
  });

  test('is brought in once, on the record, and gives nobody access', async () => {
    await bring(LIST);
    expect((await people()).map(({ address, name }) => [address, name]).sort()).toEqual([
      ['ansel@brackvater.example', 'Ansel'],
      ['jonas@brackwater.example', 'Jonas Feld'],
      ['mira@brackwater.example', 'Mira Kolbe'],
    ]);
    const entries = await product.deps.db.read.select().from(ledgerEntries);
    expect(
      entries.filter(
        ({ action }) => action === 'people.imported' || action === 'recipient.changed',
      ),
    ).toHaveLength(2);
    expect(await previewPeople(product.deps, product.ida, { text: LIST })).toMatchObject({
      added: 0,
      changed: 0,
      same: 3,
    });
    await bring(LIST);
    expect(await people()).toHaveLength(3);
    expect(
      (
        await verifyLedger(product.deps.db.read, {
          publicKey: product.deps.recorder.signer.publicKey,
        })
      ).problems,
    ).toEqual([]);
  });

  test('that a colleague overtook keeps what they changed where the list is silent', async () => {
    const [jonas] = (await people()).filter(({ address }) => address.startsWith('jonas'));
    await changePerson(product.deps, product.ida, { id: jonas?.id ?? 'rcp_', zone: 'Europe/Rome' });
    await bring(LIST);
    expect((await people()).find(({ address }) => address.startsWith('jonas'))?.zone).toBe(
      'Europe/Rome',
    );
  });

  test.each(['csv', 'ldif', 'vcard'] as const)(
    'goes out as %s and comes back the same',
    async (format) => {
      const { text } = await takePeopleOut(product.deps, product.ida, { format });
      expect(await previewPeople(product.deps, product.ida, { text })).toMatchObject({
        format,
        added: 0,
        changed: 0,
        same: 3,
        problems: 0,
      });
    },
  );

  test('tells how far it is, and that it is over', async () => {
    const text = `email\n${Array.from({ length: 5_000 }, (_, i) => `p${String(i)}@many.example`).join('\n')}\n`;
    const lines: { done: number; all: number; over: boolean }[] = [];
    for await (const line of importPeopleLines(product.deps, product.ida, { text }))
      lines.push(JSON.parse(Buffer.from(line).toString()) as (typeof lines)[number]);
    expect(lines.map(({ done }) => done)).toEqual([2_000, 4_000, 5_000, 5_000]);
    expect(lines.map(({ over }) => over)).toEqual([false, false, false, true]);
    expect(await people()).toHaveLength(5_003);
  });
});

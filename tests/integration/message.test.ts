// The message of a dispatch: filled in for each, formatted, in the mail or only behind the link, and
// never with what is protected in it.
import { newLayer } from '@/core/watermark/layers';
import { simpleParser } from 'mailparser';
import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import type { DocumentId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import type { DispatchInput } from '@/contracts/dispatch';
import { openPdf } from '@/core/pages/pdf-document';
import { loadInstalledPdfium } from '@/server/rendering/load-pdfium';
import { previewMail } from '@/server/services/dispatching/preview-mail';
import { putText, removeText } from '@/server/services/dispatching/saved-texts';
import { sendDocuments } from '@/server/services/dispatching/send-documents';
import { fileDocuments } from '@/server/services/filing/file-documents';
import { putMarking } from '@/server/services/filing/manage-filing';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { sharedWith } from '@/server/services/reading/shared-with';
import { START, drawing, protect, prove, startProduct, type Product } from '../support/product';
import { joinStaff } from '../support/staff';

let product: Product;
let document: DocumentId;
beforeAll(async () => {
  product = await startProduct();
  document = await protect(product, await drawing(2), 'Outline specification');
});
afterAll(async () => {
  await product.close();
});

const MIRA = { address: 'mira@yard.example', name: 'Mira Sand', organisation: 'Ferrow' };
const JONAS = { address: 'jonas@yard.example', name: '', organisation: '' };
const terms = { rights: ['read' as const], from: null, until: START + 9 * DAY, prints: null };

const pdfium = await loadInstalledPdfium();
/** The words of a paper's first page. */
function wordsOf(bytes: Uint8Array): string[] {
  const pdf = openPdf(pdfium, {
    size: bytes.length,
    opened: () => 0,
    read: (at, length) => bytes.subarray(at, Math.min(bytes.length, at + length)),
  });
  const runs = pdf.text(1).map(({ text }) => text);
  pdf.close();
  return runs.join(' ').split(/\s+/);
}

async function send(over: Partial<DispatchInput> = {}) {
  await sendDocuments(product.deps, product.ida, {
    documents: [document],
    recipients: [MIRA, JONAS],
    terms,
    subject: 'Round 2',
    note: '',
    watermark: [newLayer('tiled', '{name}')],
    delivery: 'mail',
    ...over,
  });
  await deliverMail(product.deps);
}

async function mailTo(address: string) {
  const [message] = (await readMailroom(product.deps, { address })).messages;
  const { text = '', html = false } = await simpleParser(
    (await readMessage(product.deps, { id: message?.id ?? '' })).raw,
  );
  return { text, html: html === false ? '' : html, token: /\/r\/([0-9a-z]{24})/.exec(text)?.[1] };
}

describe('a note', () => {
  const note = 'Dear {recipient},\n\n**New**: {documents}, until {ends}.\n\n- {sender}';

  test('says to each what is theirs, formatted in HTML and as written in text, also behind the link', async () => {
    await send({ note });
    const mira = await mailTo(MIRA.address);
    expect(mira.text).toContain('Dear Mira Sand,');
    expect(mira.text).toContain('**New**: Outline specification, until');
    expect(mira.html).toContain('<strong>New</strong>: Outline specification');
    expect(mira.html).toContain('<li>Ida Roe</li>');
    expect((await mailTo(JONAS.address)).text).toContain('Dear jonas@yard.example,');
    const token = mira.token ?? '';
    const reader = await prove(product, token, MIRA.address);
    expect((await sharedWith(product.deps, reader, { token })).note).toContain('Dear Mira Sand,');
  });

  test('stays out of the mail where it is wanted so, and is read behind the link', async () => {
    await send({ note: 'Confidential reasons', noteInMail: false });
    const { text, html, token = '' } = await mailTo(MIRA.address);
    expect(`${text} ${html}`).not.toContain('Confidential');
    const reader = await prove(product, token, MIRA.address);
    expect((await sharedWith(product.deps, reader, { token })).note).toBe('Confidential reasons');
  });

  test('brings no markup and no address of another kind into the mail', async () => {
    await send({ note: '<img src=x> **<b>** javascript:alert(1) https://a.example/"onclick="x' });
    const { html } = await mailTo(MIRA.address);
    expect(html).not.toMatch(/<img|<b>|href="javascript|" ?onclick=/);
    expect(html).toContain('href="https://a.example/');
  });

  test('that quotes what is protected is refused, unless it stays behind the link', async () => {
    const words = wordsOf(await drawing(2));
    const quoted = words.slice(0, 40).join(' ');
    await expect(send({ note: `As written:\n${quoted}` })).rejects.toMatchObject({
      problem: 'note-quotes',
    });
    await send({ note: quoted, noteInMail: false });
    expect((await mailTo(MIRA.address)).text).not.toContain(words.slice(0, 14).join(' '));
  });
});

test('nobody finds out by a note what stands in somebody else’s document', async () => {
  const nils = await joinStaff(product, 'sender', 'nils-who-guesses');
  const quoted = wordsOf(await drawing(2))
    .slice(0, 40)
    .join(' ');
  const problems: unknown[] = [];
  for (const note of [quoted, quoted.toUpperCase().split(' ').toReversed().join(' ')])
    await sendDocuments(product.deps, nils, {
      documents: [document],
      recipients: [MIRA],
      terms,
      subject: 'Guess',
      note,
      watermark: [],
      delivery: 'mail',
    }).catch((error: unknown) => problems.push(error));
  expect(problems).toMatchObject([{ problem: 'title-of-others' }, { problem: 'title-of-others' }]);
});

test('titles stay out of mail where the marking wants it, and are read behind the link', async () => {
  const { id: markingId } = await putMarking(product.deps, product.ida, {
    id: null,
    name: 'Board',
    meaning: '',
    hidesTitles: true,
  });
  const secret = await protect(product, await drawing(1), 'Offer of the harbour');
  await fileDocuments(product.deps, product.ida, { documents: [secret], markingId });
  await send({ documents: [secret], note: 'About {documents}' });
  const { text, html, token = '' } = await mailTo(MIRA.address);
  expect(`${text} ${html}`).not.toContain('Offer of the harbour');
  expect(text).toMatch(/Document REF-\d+/);
  const reader = await prove(product, token, MIRA.address);
  const shared = await sharedWith(product.deps, reader, { token });
  expect(shared.documents.map(({ title }) => title)).toEqual(['Offer of the harbour']);
  expect(shared.note).toBe('About Offer of the harbour');
});

test('a preview is the mail that is sent but for its link, and nothing is kept of it', async () => {
  const before = (await readMailroom(product.deps, {})).messages.length;
  const { parts, subject } = await previewMail(product.deps, product.ida, {
    documents: [document],
    terms,
    subject: 'Round 2',
    note: 'Dear {recipient}',
    recipient: { ...MIRA, name: '' },
  });
  expect(subject).toBe('Round 2');
  expect(parts).toContainEqual({ text: 'Dear Mira Sand', note: true });
  await send({ note: 'Dear {recipient}' });
  const { text, token = '' } = await mailTo(MIRA.address);
  const whole = parts.map((part) => part.text).join('\n\n');
  expect(text.trim()).toBe(whole.replace('/r/…', `/r/${token}`));
  expect((await readMailroom(product.deps, {})).messages).toHaveLength(before + 2);
});

test('texts are saved for everybody who sends, one a name, and the ledger says who', async () => {
  const nils = await joinStaff(product, 'sender', 'nils-of-texts');
  const text = { name: 'Round', subject: 'Round', note: 'Dear {recipient}' };
  await putText(product.deps, product.ida, text);
  const { texts } = await putText(product.deps, nils, { ...text, note: 'Hello' });
  expect(texts).toMatchObject([{ name: 'Round', note: 'Hello', changedBy: nils.name }]);
  const [saved] = texts;
  const id = saved?.id ?? 'txt_';
  expect((await removeText(product.deps, product.ida, { id })).texts).toEqual([]);
  await expect(removeText(product.deps, product.ida, { id })).rejects.toMatchObject({
    code: 'NOT_FOUND',
  });
});

// What recipients are mailed: in their own language, and without titles that a marking hides.
import { simpleParser } from 'mailparser';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { DocumentId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { workSettings } from '@/contracts/settings';
import { findRecipientByAddress } from '@/server/repositories/reading/reader-repository';
import { putWorkSettings } from '@/server/services/base/work-settings';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { previewMail } from '@/server/services/dispatching/preview-mail';
import { fileDocuments } from '@/server/services/filing/file-documents';
import { putMarking } from '@/server/services/filing/manage-filing';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { tellOfEnds } from '@/server/services/mailing/tell-of-ends';
import { changePerson } from '@/server/services/people/manage-people';
import { passOn } from '@/server/services/access/pass-on';
import { answerRequests, listRequests } from '@/server/services/requests/answer-requests';
import { askBack } from '@/server/services/requests/ask-back';
import { askForMore } from '@/server/services/requests/ask-for-more';
import type { ReaderActor } from '@/server/services/base/deps';
import {
  START,
  dispatch,
  drawing,
  protect,
  prove,
  startProduct,
  type Product,
} from '../support/product';

const ADDRESS = 'mira@werft.example';
const TITLE = 'Angebot an den Hafen';
let product: Product;
let document: DocumentId;
let token: string;
let reader: ReaderActor;

const mails = async (address = ADDRESS) => {
  await deliverMail(product.deps);
  const { messages } = await readMailroom(product.deps, { address });
  return Promise.all(
    messages.map(async ({ id }) => {
      const { subject = '', text = '' } = await simpleParser(
        (await readMessage(product.deps, { id })).raw,
      );
      return { subject, text };
    }),
  );
};
const newest = async (address?: string) => {
  const [mail = { subject: '', text: '' }] = await mails(address);
  return mail;
};

beforeAll(async () => {
  product = await startProduct();
  const { deps, ida } = product;
  // Known before anything is sent, so that the first mail is in their language already.
  const before = await protect(product, await drawing(1));
  await dispatch(product, [before], [ADDRESS]);
  const person = await findRecipientByAddress(deps.db.read, ADDRESS);
  await changePerson(deps, ida, { id: person?.id ?? 'rcp_', language: 'de-CH' });
  document = await protect(product, await drawing(1), TITLE);
  const { id: markingId } = await putMarking(deps, ida, {
    id: null,
    name: 'Board',
    meaning: '',
    hidesTitles: true,
    mailWords: 'Nur für den Vorstand.',
  });
  await fileDocuments(deps, ida, { documents: [document], markingId });
  const sent = await dispatch(product, [document], [ADDRESS], {
    rights: ['read', 'pass-on'],
    until: START + 2 * DAY,
    conditions: { passOn: { people: 2, steps: 1, domains: null } },
  });
  token = sent.tokenOf(ADDRESS);
});
afterAll(async () => {
  await product.close();
});

test('what is sent, with its end as the language says moments', async () => {
  const { text } = await newest();
  expect(text).toContain('Ida Roe von Tern & Quill hat Ihnen ein geschütztes Dokument gesendet:');
  expect(text).toMatch(/Dokument REF-\d+/);
  expect(text.split('Nur für den Vorstand.')).toHaveLength(2);
  expect(text).toMatch(/Sie können es bis \d+\. \w+ 2026 um \d\d:\d\d \(Europe\/Oslo\) öffnen\./);
});

test('the preview of it, in the same words', async () => {
  const { language, parts } = await previewMail(product.deps, product.ida, {
    documents: [document],
    terms: { rights: ['read', 'pass-on'], from: null, until: START + 2 * DAY, prints: null },
    subject: 'For you',
    note: 'A note',
    recipient: { address: ADDRESS, name: '', organisation: '' },
  });
  expect(language).toBe('de');
  const { text } = await newest();
  const whole = parts.map((part) => part.text).join('\n\n');
  expect(text.trim()).toBe(whole.replace('/r/…', `/r/${token}`));
});

test('their code', async () => {
  reader = await prove(product, token, ADDRESS);
  const { subject, text } = await newest();
  expect(subject).toMatch(/^\d{3} \d{3} ist Ihr Code$/);
  expect(text).toContain('Niemand wird Sie je danach fragen.');
});

test('a question back, the answer, and what they pass on', async () => {
  const { deps, ida } = product;
  await askForMore(deps, reader, {
    token,
    document,
    right: 'print',
    until: null,
    reason: 'Für die Werkstatt',
  });
  const requests = (await listRequests(deps, ida)).map(({ id }) => id);
  await askBack(deps, ida, { requests, words: 'Which sheet?' });
  expect((await newest()).text).toContain('Ida Roe hat eine Frage');
  await answerRequests(deps, ida, {
    requests,
    right: null,
    until: null,
    prints: null,
    words: 'Sorry',
  });
  expect((await newest()).text).toContain('hat abgelehnt, worum Sie gebeten haben');
  await passOn(deps, reader, {
    document,
    address: 'emil@werft.example',
    rights: ['read'],
    until: START + DAY,
    note: '',
  });
  expect((await newest('emil@werft.example')).text).toContain('has sent you a protected document');
});

test('that their access ends', async () => {
  await putWorkSettings(product.deps, product.ida, { ...workSettings.parse({}), endsTold: 3 });
  expect(await tellOfEnds(product.deps)).toBeGreaterThan(0);
  expect((await newest()).text).toContain('hat Ihnen gesendet, was bald endet');
});

test('a title that the marking hides stands in none of them', async () => {
  const all = [...(await mails()), ...(await mails('emil@werft.example'))];
  expect(all.length).toBeGreaterThanOrEqual(7);
  expect(all.filter(({ subject, text }) => `${subject} ${text}`.includes(TITLE))).toEqual([]);
});

// Makes the demo's data: the story of Hull 412, told through the product's own use cases.
import { rmSync, mkdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { generateX25519Identity, identityToRecipient } from 'age-encryption';
import { DAY, HOUR, MINUTE } from '@/core/base/time';
import type { DocumentId, GroupId } from '@/core/base/ids';
import { DEFAULT_WATERMARK } from '@/core/watermark/layers';
import { settableClock } from '@/server/clock/clock';
import { readConfig } from '@/server/config/env';
import { createContainer, type Container } from '@/server/container';
import type { Renderer } from '@/server/rendering/render-pool';
import { signLedger } from '@/server/repositories/ledger/ledger-writer';
import { listColleagues } from '@/server/repositories/staff/staff-repository';
import { findDocument } from '@/server/repositories/documents/document-repository';
import { findRecipients } from '@/server/repositories/people/recipient-repository';
import { askForMore } from '@/server/services/requests/ask-for-more';
import { beginUpload } from '@/server/services/documents/begin-upload';
import { reinstateGrants, revokeGrants } from '@/server/services/access/revoke-grants';
import { makeComment } from '@/server/services/comments/recipient-comments';
import { answerComment, documentComments } from '@/server/services/comments/staff-comments';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { DEMO_SIGN_IN } from '@/server/services/demo/demo-sign-in';
import type { Deps, ReaderActor, StaffActor } from '@/server/services/base/deps';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { grantRows } from '@/server/services/access/grant-rows';
import { choosePassword, inviteStaff } from '@/server/services/staff/manage-staff';
import { closeMailbox } from '@/server/services/demo/close-mailbox';
import { takeReports } from '@/server/services/mailing/take-reports';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { protectDocument } from '@/server/services/documents/protect-document';
import { receivePart } from '@/server/services/documents/receive-part';
import { setUpOrganisation, setUpToken } from '@/server/services/staff/set-up-organisation';
import type { DispatchId } from '@/core/base/ids';
import type { Right } from '@/core/policy/rights';
import { sendRevision } from '@/server/services/reading/send-revision';
import { berthFiles, type DemoFile } from './berth-files';
import { drawPaper, type Paper } from './drawings';
import { changeMembers, putGroup } from '@/server/services/people/manage-groups';
import { fileEverything } from './filing';
import { createChance } from './chance';
import type { Limits } from '@/server/limits/limits';
import { officePapers, officePeople, officeDispatches } from './office';
import { print, prove, read, readAway } from './reader-actions';
import { papers, people, dispatches, type Person } from './story';

const config = readConfig();
rmSync(config.dataDir, { recursive: true, force: true });
mkdirSync(config.dataDir, { recursive: true });

// The story ends early in the day the demo is started, so that everything in it lies behind.
const today = Math.floor(Date.now() / DAY) * DAY;
const clock = settableClock(today - 185 * DAY + 8 * HOUR);
const container = await createContainer(config, { clock, demo: true, threads: 2 });

/** While the story is told pages are drawn for nobody; what is recorded about them is real. */
function unseen(renderer: Renderer): Renderer {
  return {
    ...renderer,
    ahead: () => undefined,
    run: (task, asker) =>
      task.kind === 'inspect' || task.kind === 'make'
        ? renderer.run(task, asker)
        : Promise.resolve({
            bytes: new Uint8Array(0),
            type: 'image/png',
            width: 1,
            height: 1,
            marked: true,
          } as never),
  };
}
const noLimit = () => Promise.resolve(0);
const unlimited: Limits = {
  codesByNetwork: noLimit,
  codesInAll: noLimit,
  codesToOne: noLimit,
  addressesByLink: noLimit,
  guessesByNetwork: noLimit,
  signInByNetwork: noLimit,
  signIn: noLimit,
  passwordMails: noLimit,
  opens: noLimit,
  prints: noLimit,
  copies: noLimit,
  searches: noLimit,
  comments: noLimit,
  revisions: noLimit,
  readings: noLimit,
};
const deps: Deps = {
  ...container.deps,
  renderer: unseen(container.deps.renderer),
  limits: unlimited,
};

const chance = createChance(412);

async function setUp({ identity }: Container): Promise<StaffActor> {
  const privateKey = await generateX25519Identity();
  writeFileSync(path.join(config.dataDir, 'recovery-key.txt'), `${privateKey}\n`, { mode: 0o600 });
  const { staffId } = await setUpOrganisation(
    deps,
    identity,
    {
      token: setUpToken(deps),
      organisation: 'Tern & Quill Naval Architects',
      zone: 'Europe/Oslo',
      name: 'Ida Roe',
      ...DEMO_SIGN_IN,
      recoveryKey: await identityToRecipient(privateKey),
    },
    true,
  );
  return {
    kind: 'staff',
    id: staffId,
    name: 'Ida Roe',
    email: DEMO_SIGN_IN.email,
    role: 'administrator',
    session: 'told',
    proven: true,
    from: { network: '192.0.2.10', agent: 'demo' },
  };
}

async function* whole(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield await Promise.resolve(bytes);
}

/** Colleagues join by the mail that invites them. */
async function join(
  { identity }: Container,
  ida: StaffActor,
  name: string,
  role: 'sender' | 'auditor',
): Promise<void> {
  const email = `${name.toLowerCase().replace(' ', '.')}@tern-quill.example`;
  await inviteStaff(deps, ida, { name, email, role });
  await deliverMail(deps);
  const { messages } = await readMailroom(deps, { address: email });
  const { raw } = await readMessage(deps, { id: messages[0]?.id ?? '' });
  await choosePassword(deps, identity, ida.from, {
    token: /\/password\/([0-9a-z]+)/.exec(raw.replaceAll('=\r\n', ''))?.[1] ?? '',
    password: DEMO_SIGN_IN.password,
  });
}

async function protectFile(
  ida: StaffActor,
  { title, reference, fileName, make }: DemoFile,
): Promise<DocumentId> {
  const bytes = await make();
  const { id } = await beginUpload(deps, ida, { fileName, bytes: bytes.length });
  await receivePart(deps, ida, { id, offset: 0 }, whole(bytes));
  return (await protectDocument(deps, ida, { id, title, reference })).id;
}

async function protectPaper(ida: StaffActor, paper: Paper): Promise<DocumentId> {
  const { title, reference } = paper;
  const make = () => drawPaper(paper);
  return protectFile(ida, { title, reference, fileName: `${title}.pdf`, make });
}

async function protectPapers(ida: StaffActor): Promise<Map<string, DocumentId>> {
  const ids = new Map<string, DocumentId>();
  for (const paper of [...officePapers, ...papers]) {
    clock.set(clock.now() + 7 * MINUTE);
    ids.set(paper.reference, await protectPaper(ida, paper));
  }
  return ids;
}

const ida = await setUp(container);
await join(container, ida, 'Nils Aker', 'sender');
await join(container, ida, 'Vera Holm', 'auditor');
const documents = await protectPapers(ida);
const [nils] = (await listColleagues(deps.db.read)).filter(({ name }) => name === 'Nils Aker');
if (nils !== undefined) await fileEverything(deps, ida, nils.id, documents);
const ids = new Map<string, DispatchId>();
const readers = new Map<string, ReaderActor>();

/** Everything that happens, by the day it happens on; told in order. */
type Event = { readonly day: number; readonly happen: () => Promise<void> };
const events: Event[] = [];
const at = (day: number, happen: () => Promise<void>): void => {
  events.push({ day, happen });
};

const grantsOfDispatch = (key: string) =>
  grantRows(deps, ida, { dispatch: ids.get(key) ?? 'dsp_' });
const tokens = new Map<string, string>();
async function tokenFor(key: string, person: Person): Promise<string> {
  const known = tokens.get(`${key} ${person.address}`);
  if (known !== undefined) return known;
  for (const grant of await grantsOfDispatch(key))
    tokens.set(`${key} ${grant.address}`, grant.link.split('/').at(-1) ?? '');
  return tokens.get(`${key} ${person.address}`) ?? '';
}

async function readerOf(key: string, person: Person): Promise<ReaderActor> {
  const reader =
    readers.get(person.address) ??
    (await prove(deps, await tokenFor(key, person), person.address, person.network));
  readers.set(person.address, reader);
  return reader;
}

async function open(
  key: string,
  person: Person,
  paper: string,
  pages: number,
  printed = false,
): Promise<void> {
  const token = await tokenFor(key, person);
  const reader = await readerOf(key, person);
  const licence = await read(deps, reader, token, documents.get(paper) ?? 'doc_', pages);
  if (printed && licence !== null) await print(deps, reader, licence);
}

/** Sends something to groups and domains as such. */
async function toMany(
  key: string,
  {
    documents: papers,
    days,
    ...dispatch
  }: {
    readonly groups?: { id: GroupId }[];
    readonly domains?: { domain: string }[];
    readonly documents: readonly string[];
    readonly subject: string;
    readonly delivery: 'mail' | 'by-hand';
    readonly days: number;
  },
): Promise<void> {
  const { id } = await dispatchDocuments(deps, ida, {
    ...dispatch,
    documents: papers.map((paper) => documents.get(paper) ?? 'doc_'),
    recipients: [],
    terms: { rights: ['read'], prints: null, from: null, until: today + days * DAY + 16 * HOUR },
    note: '',
    watermark: DEFAULT_WATERMARK,
  });
  ids.set(key, id);
  await deliverMail(deps);
}

/** People who never open anything, whatever they are sent. */
const silent = new Set<string>([
  people.oskar.address,
  people.elin.address,
  ...officePeople.filter((_person, i) => i % 11 === 5).map((person) => person.address),
]);

// Somebody's mailbox was closed without a word: what is sent there comes back.
at(-18, async () => {
  await closeMailbox(deps, ida, { address: 'yusuf.adan@kelder.example', closed: true });
});

for (const dispatch of [...officeDispatches, ...dispatches]) {
  at(dispatch.day, async () => {
    const { id } = await dispatchDocuments(deps, ida, {
      documents: dispatch.papers.map((paper) => documents.get(paper) ?? 'doc_'),
      recipients: dispatch.to.map(({ address, name, organisation }) => ({
        address,
        name,
        organisation,
      })),
      terms: {
        rights: dispatch.rights as never,
        prints: dispatch.prints,
        from: dispatch.from === null ? null : today + dispatch.from * DAY + 6 * HOUR,
        until: dispatch.until === null ? null : today + dispatch.until * DAY + 16 * HOUR,
        ...(dispatch.offlineHours === undefined
          ? {}
          : { conditions: { offline: dispatch.offlineHours * HOUR } }),
      },
      subject: dispatch.subject,
      note: dispatch.note,
      watermark: DEFAULT_WATERMARK,
      delivery: 'mail',
      form: dispatch.form ?? 'link',
      titleOnCover: dispatch.form !== undefined,
    });
    ids.set(dispatch.key, id);
    await deliverMail(deps);
    await takeReports(deps);
  });
  for (const person of dispatch.to) {
    if (silent.has(person.address)) continue;
    const last = Math.min(-0.4, dispatch.until ?? 0);
    for (let visit = 0; visit < 4 + Math.floor(chance() * 3); visit++) {
      const paper = dispatch.papers[Math.floor(chance() * dispatch.papers.length)] ?? '';
      const day = dispatch.day + 0.3 + chance() * (last - dispatch.day - 0.3);
      const pages = 1 + Math.floor(chance() * 4);
      const printed = dispatch.rights.includes('print') && chance() < 0.12;
      at(day, () => open(dispatch.key, person, paper, pages, printed));
    }
  }
}

// The reporter tries before her time; a forwarded link meets a stranger; Kelder is shut out and
// tries again; one was a mistake.
at(-8.3, () => open('press', people.elin, 'TQ-412-GA-03', 1));
at(-6.2, async () => {
  const token = await tokenFor('tender', people.petra);
  const stranger = await prove(deps, token, 'buying@outsider.example', '198.51.100.200');
  await read(deps, stranger, token, documents.get('TQ-412-LP-01') ?? 'doc_', 1);
});
at(-5, async () => {
  const grants = await grantsOfDispatch('tender');
  await revokeGrants(deps, ida, {
    grants: grants
      .filter(
        (grant) =>
          grant.organisation === 'Kelder Shipworks' || grant.address === people.wilma.address,
      )
      .map((grant) => grant.id),
  });
});
at(-4.9, async () => {
  const grants = await grantsOfDispatch('tender');
  await reinstateGrants(deps, ida, {
    grants: grants
      .filter((grant) => grant.address === people.wilma.address)
      .map((grant) => grant.id),
  });
});
for (const day of [-4.2, -3.1, -3.05, -1.6])
  at(day, () => open('tender', people.petra, 'TQ-412-LP-01', 1));
// A yard is seen where it never was; the surveyor needs longer; two bidders want a third print;
// somebody writes for a colleague who left.
at(-1.3, async () => {
  const token = await tokenFor('tender', people.tomas);
  const far = await prove(deps, token, people.tomas.address, '198.51.100.200');
  await read(deps, far, token, documents.get('TQ-412-LP-01') ?? 'doc_', 2);
});
// The surveyor remarks on the weights, and is answered.
at(-1.2, async () => {
  const token = await tokenFor('survey', people.rana);
  const weights = documents.get('TQ-412-WL-02') ?? 'doc_';
  const surveyor = await readerOf('survey', people.rana);
  const licence = await read(deps, surveyor, token, weights, 2);
  if (licence === null) return;
  await makeComment(deps, surveyor, {
    licence,
    page: 1,
    place: { kind: 'area', box: { left: 800, top: 2_050, width: 7_400, height: 560 } },
    text: 'Is this with the stiffeners, or without? The class calculation has them apart.',
    answers: null,
  });
  await makeComment(deps, surveyor, {
    licence,
    page: 1,
    place: { kind: 'point', left: 7_700, top: 4_600 },
    text: 'This seems light for the winch that is in the arrangement.',
    answers: null,
  });
});
// On the way to the yard there is no connection; what was read is told on arrival.
at(-0.35, async () => {
  const token = await tokenFor('survey', people.rana);
  const weights = documents.get('TQ-412-WL-02') ?? 'doc_';
  const surveyor = await readerOf('survey', people.rana);
  const licence = await read(deps, surveyor, token, weights, 1);
  const found = await findDocument(deps.db.read, weights);
  if (licence === null || found === null) return;
  const away = { openedAt: clock.now() + 2 * HOUR, backAt: clock.now() + 5 * HOUR };
  await readAway(deps, surveyor, licence, found.version.id, away);
});
at(-1.1, async () => {
  const id = documents.get('TQ-412-WL-02') ?? 'doc_';
  const [first] = (await documentComments(deps, ida, { id })).comments;
  if (first === undefined) return;
  await answerComment(deps, ida, {
    id,
    answers: first.id,
    text: 'With them. I have asked for the two figures apart; they come with the next issue.',
  });
});
// The harbour board may change what the berth study says of their own quay, and does.
const berth: Paper = {
  reference: 'TQ-380-BS-01',
  title: 'Berth study, particulars',
  kind: 'text',
  pages: 3,
};
const BERTH_TERMS = {
  rights: ['read', 'comment', 'copy', 'print', 'revise', 'keep'] as Right[],
  prints: null,
  from: null,
  until: today + 30 * DAY,
};
// What goes with it in other kinds of file.
at(-6.4, async () => {
  for (const file of berthFiles) documents.set(file.reference, await protectFile(ida, file));
  const { id } = await dispatchDocuments(deps, ida, {
    documents: berthFiles.map(({ reference }) => documents.get(reference) ?? 'doc_'),
    recipients: [people.cosmo],
    terms: BERTH_TERMS,
    subject: 'Berth study: the files beside it',
    note: 'Weights, specification, notes, levels, a photograph and the model.',
    watermark: DEFAULT_WATERMARK,
    delivery: 'mail',
  });
  ids.set('berth files', id);
  await deliverMail(deps);
  await open('berth files', people.cosmo, 'TQ-380-BS-02', 2);
});
at(-6.5, async () => {
  documents.set(berth.reference, await protectPaper(ida, berth));
  const { id } = await dispatchDocuments(deps, ida, {
    documents: [documents.get(berth.reference) ?? 'doc_'],
    recipients: [people.cosmo],
    terms: BERTH_TERMS,
    subject: 'Berth study: please correct what is yours',
    note: 'Change what is not right about your quay, and send the file back here.',
    watermark: DEFAULT_WATERMARK,
    delivery: 'mail',
  });
  ids.set('berth', id);
  await deliverMail(deps);
});
at(-0.6, async () => {
  const token = await tokenFor('berth', people.cosmo);
  const reader = await readerOf('berth', people.cosmo);
  const id = documents.get(berth.reference) ?? 'doc_';
  const licence = await read(deps, reader, token, id, 3);
  if (licence === null) return;
  const bytes = await drawPaper({ ...berth, title: 'Berth study, particulars of the east quay' });
  await sendRevision(
    deps,
    reader,
    {
      licence,
      name: 'Berth study, east quay corrected.pdf',
      note: 'This is about our east quay alone: it says so now. The rest is right.',
    },
    { bytes: bytes.length, body: whole(bytes) },
  );
});
const ask =
  (
    key: string,
    person: Person,
    paper: string,
    right: 'print' | 'copy' | null,
    days: number | null,
    reason: string,
  ) =>
  async () => {
    const input = {
      token: await tokenFor(key, person),
      document: documents.get(paper) ?? 'doc_',
      right,
      until: days === null ? null : today + days * DAY + 16 * HOUR,
      reason,
    } as const;
    await askForMore(deps, await readerOf(key, person), input);
  };
at(
  -0.9,
  ask(
    'survey',
    people.rana,
    'TQ-412-MS-02',
    null,
    16,
    'The plating calculation needs another fortnight.',
  ),
);
at(
  -0.8,
  ask(
    'tender',
    people.mira,
    'TQ-412-GA-03',
    'copy',
    null,
    'Our estimators would like to copy the room list.',
  ),
);
at(
  -0.7,
  ask(
    'tender',
    people.jonas,
    'TQ-412-GA-03',
    'copy',
    null,
    'Copying the room list would spare us typing it.',
  ),
);
at(
  -0.6,
  ask(
    'tender',
    people.tomas,
    'TQ-412-WL-02',
    null,
    20,
    'Ivo Senn, who had this in hand, left us on Friday. I take over and need more time.',
  ),
);
at(-2.4, () => open('prequalify', people.tomas, 'TQ-412-SP-01', 1));

// The yards that bid are addressed together.
at(-0.5, async () => {
  const { id } = await putGroup(deps, ida, { id: null, name: 'Bidding yards' });
  const bidding = await findRecipients(
    deps.db.read,
    [people.mira, people.jonas, people.ansel, people.tomas, people.oskar, people.wilma].map(
      ({ address }) => address,
    ),
  );
  await changeMembers(deps, ida, { id, add: bidding.map((person) => person.id), remove: [] });
  await toMany('round-2', {
    groups: [{ id }],
    documents: ['TQ-412-TS-01'],
    subject: 'Dates of round 2',
    delivery: 'mail',
    days: 20,
  });
});
// The harbour board hands a link round in its own house; a colleague nobody had named opens it.
at(-0.45, () =>
  toMany('board', {
    domains: [{ domain: '@harbour-aldery.example' }],
    documents: ['TQ-412-PH-01', 'TQ-412-GA-03'],
    subject: 'For the harbour board, all of it',
    delivery: 'by-hand',
    days: 40,
  }),
);
at(-0.3, async () => {
  const token = (await grantsOfDispatch('board'))[0]?.link.split('/').at(-1) ?? '';
  const colleague = await prove(deps, token, 'ines.ard@harbour-aldery.example', '192.0.2.78');
  await read(deps, colleague, token, documents.get('TQ-412-PH-01') ?? 'doc_', 2);
});

for (const { day, happen } of events.sort((a, b) => a.day - b.day)) {
  clock.set(Math.max(clock.now() + MINUTE, Math.round(today + day * DAY + 9 * HOUR)));
  await happen();
}
clock.set(Math.min(Date.now(), clock.now() + HOUR));
await deliverMail(deps);
await deps.db.write((tx) => signLedger(tx, deps.recorder, clock.now()));
await container.close();
console.log(
  `Demo data is ready. Sign in as ${DEMO_SIGN_IN.email} with the password ${DEMO_SIGN_IN.password}`,
);

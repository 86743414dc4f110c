import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { readConfig } from '@/server/config/env';
import { createContainer, type Container } from '@/server/container';
import { documents, versions } from '@/server/db/schema/documents';
import { outbox } from '@/server/db/schema/mailing';
import { serviceKeys } from '@/server/db/schema/organisation';
import { checkContents } from '@/server/services/documents/check-contents';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import { rotateMasterKey } from '@/server/services/keys/rotate-master-key';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { runCommand } from '../support/command';
import { runUntilDead } from '../support/killed';
import { dispatch, drawing, protect, startProduct } from '../support/product';
import { blobFile } from '../support/blob-file';

export const POINTS = [
  'after the blob and before its row',
  'after a rename',
  'after the mail server’s answer',
  'between re-wrapping and forgetting a key',
  'inside a backup',
  'inside a restore',
] as const;
type Point = (typeof POINTS)[number];
type Left = { readonly container: Container; readonly folder: string; readonly said: string };

/** A product with a few documents, a dispatch and a backup, made once and copied for each kill. */
export async function prepareForKills(): Promise<string> {
  const folder = mkdtempSync(path.join(tmpdir(), 'embargo-kills-'));
  const product = await startProduct(folder);
  const bytes = await drawing(1);
  const stored = [
    await protect(product, bytes),
    await protect(product, bytes),
    await protect(product, bytes),
  ];
  await dispatch(product, stored, ['mira@ferrow.example']);
  await deliverMail(product.deps);
  mkdirSync(path.join(folder, 'work'));
  writeFileSync(path.join(folder, 'work', 'key'), `${product.privateKey}\n`);
  await product.container.close();
  const { code, err } = await runCommand(['backup', '--out', path.join(folder, 'work', 'b.age')], {
    DATA_DIR: folder,
  });
  if (code !== 0) throw new Error(err);
  return folder;
}

function open(folder: string): Promise<Container> {
  return createContainer(readConfig({ DATA_DIR: folder, LOG_LEVEL: 'silent' }), {
    demo: true,
    threads: 1,
  });
}

async function restoredTo(
  folder: string,
  into: string,
): Promise<{ readonly code: number; readonly err: string }> {
  const work = (name: string): string => path.join(folder, 'work', name);
  return runCommand(
    ['restore', work('b.age'), '--identity', work('key'), '--into', work(into), '--revoke-all'],
    { DATA_DIR: folder },
  );
}

/** What everything rests on: the ledger holds and every stored content opens. */
async function broken({ deps }: Container): Promise<string[]> {
  const { problems } = await verifyLedger(deps.db.read, {
    publicKey: deps.recorder.signer.publicKey,
    seals: deps.integrity,
  });
  const checked = await checkContents(deps, null, () => undefined);
  return [
    ...problems.map(({ detail }) => detail),
    ...checked.damaged.map(({ title, problem }) => `${title}: ${problem}`),
    ...checked.dangling.map(({ row, parent }) => `${row} names nothing in ${parent}`),
  ];
}

async function storedWhole({ container, folder, said }: Left): Promise<string[]> {
  const acknowledged = Number([...said.matchAll(/stored (\d+)\n/g)].at(-1)?.[1] ?? 0);
  const { read } = container.deps.db;
  const stored = await read.$count(documents);
  const half = await read.query.uploads.findMany();
  const named = new Set(
    [
      ...(await read.select({ key: versions.blobKey }).from(versions)),
      ...half.map(({ blobKey }) => ({ key: blobKey })),
    ].map(({ key }) => `${key}.age`),
  );
  const unnamed = [
    ...readdirSync(path.join(folder, 'blobs')),
    ...readdirSync(path.join(folder, 'incoming')),
  ].filter((name) => !named.has(name));
  return [
    ...(stored < acknowledged + 3
      ? [`${String(acknowledged + 3)} documents were acknowledged, ${String(stored)} are there`]
      : []),
    ...half
      .filter(({ blobKey }) => !existsSync(blobFile({ folder }, blobKey)))
      .map(({ id }) => `${id} has no file`),
    ...unnamed.map((name) => `nothing names ${name}`),
  ];
}

/** What counts as delivered was; what was cut off says that it may have been, and goes out no second time. */
async function mailedOnce({ container: { deps }, folder }: Left): Promise<string[]> {
  const { mailer } = deps;
  if (mailer === null) throw new Error('no mail');
  const handed = readFileSync(path.join(folder, 'work', 'handed-over'), 'utf8')
    .trim()
    .split('\n');
  await deliverMail({
    ...deps,
    mailer: {
      ...mailer,
      deliver: async (mail) => {
        handed.push(mail.to);
        await mailer.deliver(mail);
      },
    },
  });
  const rows = (await deps.db.read.select().from(outbox)).filter(({ toAddress }) =>
    toAddress.startsWith('mail.'),
  );
  return [
    ...rows
      .filter(({ state }) => state !== 'delivered' && state !== 'unsure')
      .map(({ toAddress, state }) => `the message to ${toAddress} is ${state}`),
    ...rows
      .filter(({ toAddress }) => !handed.includes(toAddress))
      .map(({ toAddress }) => `nothing was handed over for ${toAddress}`),
    ...handed.filter((to, i) => handed.indexOf(to) !== i).map((to) => `${to} was mailed twice`),
  ];
}

/** Every key opens, and rotating again leaves one generation. */
async function rotatedWhole({ container: { deps }, folder }: Left): Promise<string[]> {
  const { generation } = await rotateMasterKey(deps, path.join(folder, 'keys', 'master.key'), {
    kind: 'system',
    id: null,
  });
  const stored = [
    ...(await deps.db.read.select({ of: versions.keyGeneration }).from(versions)),
    ...(await deps.db.read.select({ of: serviceKeys.generation }).from(serviceKeys)),
  ];
  return stored.every(({ of }) => of === generation)
    ? []
    : ['a key is left under an old generation'];
}

function noCopyLeft({ folder }: Left): Promise<string[]> {
  return Promise.resolve(
    readdirSync(folder)
      .filter((name) => name.startsWith('.backup-'))
      .map((name) => `${name} was left`),
  );
}

/** Either nothing or the whole stands in the folder, and where it is nothing, the next try succeeds. */
async function restoredWhole({ folder }: Left): Promise<string[]> {
  const into = path.join(folder, 'work', 'new');
  if (!existsSync(into) || readdirSync(into).length === 0) {
    const { code, err } = await restoredTo(folder, 'new');
    if (code !== 0) return [`the next try failed: ${err}`];
  }
  const restored = await open(into);
  const lost = await broken(restored);
  if ((await restored.deps.db.read.$count(documents)) !== 3) lost.push('a document is missing');
  await restored.close();
  if (existsSync(`${into}.restoring`)) lost.push('a half restored folder was left');
  return lost;
}

const LOOKS: Readonly<Record<Point, (left: Left) => Promise<string[]>>> = {
  'after the blob and before its row': storedWhole,
  'after a rename': storedWhole,
  'after the mail server’s answer': mailedOnce,
  'between re-wrapping and forgetting a key': rotatedWhole,
  'inside a backup': noCopyLeft,
  'inside a restore': restoredWhole,
};

/** Kills a product at a named point, the `step`th time it comes there, starts it again and says what does not stand. */
export async function killAt(prepared: string, point: Point, step: number): Promise<string[]> {
  const folder = mkdtempSync(path.join(tmpdir(), 'embargo-killed-'));
  cpSync(prepared, folder, { recursive: true });
  const said = await runUntilDead('tests/support/dying-product.ts', [folder, point, String(step)]);
  const container = await open(folder);
  const lost = [...(await LOOKS[point]({ container, folder, said })), ...(await broken(container))];
  await container.close();
  rmSync(folder, { recursive: true, force: true });
  return lost.map((what) => `${point} (${String(step)}): ${what}`);
}

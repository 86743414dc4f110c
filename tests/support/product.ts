import { randomBytes, webcrypto } from 'node:crypto';
import { mkdtempSync, readFileSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { generateX25519Identity, identityToRecipient } from 'age-encryption';
import { DAY } from '@/core/base/time';
import type { DocumentId } from '@/core/base/ids';
import { DEFAULT_WATERMARK } from '@/core/watermark/layers';
import type { DispatchInput } from '@/contracts/dispatch';
import { PART } from '@/contracts/document';
import { settableClock } from '@/server/clock/clock';
import { readConfig } from '@/server/config/env';
import { createContainer, type Container } from '@/server/container';
import { createRenderPool, type Renderer } from '@/server/rendering/render-pool';
import { beginUpload } from '@/server/services/documents/begin-upload';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import type { Deps, ReaderActor, StaffActor, StrangerActor } from '@/server/services/base/deps';
import { dispatchDocuments } from '@/server/services/dispatching/dispatch-documents';
import { grantRows } from '@/server/services/access/grant-rows';
import { protectDocument } from '@/server/services/documents/protect-document';
import { enterCode, requestCode } from '@/server/services/reading/prove-address';
import { readMailroom } from '@/server/services/demo/read-mailroom';
import type { Made } from '@/server/services/reading/take-copies';
import { receivePart } from '@/server/services/documents/receive-part';
import { setUpOrganisation, setUpToken } from '@/server/services/staff/set-up-organisation';
import {
  findDeviceByToken,
  findRecipientByAddress,
} from '@/server/repositories/reading/reader-repository';
import { drawPaper } from '../../demo/drawings';

export const START = Date.UTC(2026, 10, 25, 9);

export type Product = {
  readonly container: Container;
  readonly deps: Deps;
  readonly clock: ReturnType<typeof settableClock>;
  readonly ida: StaffActor;
  readonly folder: string;
  readonly privateKey: string;
  readonly close: () => Promise<void>;
};

/** Starting threads is most of a start: the products of one process draw in the same ones. */
let threads: Renderer | null = null;

/** A whole product on a real database in a temporary folder, with the mailroom for mail. */
export async function startProduct(
  folder = mkdtempSync(path.join(tmpdir(), 'embargo-')),
  environment: Readonly<Record<string, string>> = {},
): Promise<Product> {
  const clock = settableClock(START);
  const config = readConfig({ DATA_DIR: folder, LOG_LEVEL: 'silent', ...environment });
  const container = await createContainer(config, {
    clock,
    demo: true,
    renderer: (threads ??= createRenderPool(config.workersDir, 1)),
  });
  const privateKey = await generateX25519Identity();
  const { staffId } = await setUpOrganisation(
    container.deps,
    container.identity,
    {
      token: setUpToken(container.deps),
      organisation: 'Tern & Quill',
      zone: 'Europe/Oslo',
      name: 'Ida Roe',
      email: 'ida@tern-quill.example',
      password: 'a long enough password',
      recoveryKey: await identityToRecipient(privateKey),
    },
    true,
  );
  const ida: StaffActor = {
    kind: 'staff',
    id: staffId,
    name: 'Ida Roe',
    email: 'ida@tern-quill.example',
    role: 'administrator',
    session: 'told',
    proven: true,
    from: { network: '192.0.2.10', agent: 'test' },
  };
  return {
    container,
    deps: container.deps,
    clock,
    ida,
    folder,
    privateKey,
    close: async () => {
      await container.close();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

export async function* inPieces(bytes: Uint8Array, size = 100_000): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += size)
    yield await Promise.resolve(bytes.subarray(at, at + size));
}

let nextReference = 1;

/** Takes a file in as the browser does. */
export async function protect(
  { deps, ida }: Product,
  bytes: Uint8Array,
  title = 'Lines plan',
  fileName = `${title}.pdf`,
): Promise<DocumentId> {
  const { id } = await beginUpload(deps, ida, { fileName, bytes: bytes.length });
  for (let at = 0; at < bytes.length; at += PART)
    await receivePart(deps, ida, { id, offset: at }, inPieces(bytes.subarray(at, at + PART)));
  return (
    await protectDocument(deps, ida, {
      id,
      title,
      reference: `REF-${String(nextReference++)}`,
      // The same drawing serves many tests.
      again: true,
    })
  ).id;
}

export function drawing(pages = 3): Promise<Uint8Array> {
  return drawPaper({ reference: 'TQ-1', title: 'Outline specification', kind: 'text', pages });
}

export async function dispatch(
  { deps, ida }: Product,
  documents: readonly DocumentId[],
  addresses: readonly string[],
  terms: Partial<DispatchInput['terms']> = {},
  form?: DispatchInput['form'],
) {
  const input: DispatchInput = {
    documents: [...documents],
    recipients: addresses.map((address) => ({ address, name: '', organisation: '' })),
    terms: { rights: ['read'], from: null, until: START + 30 * DAY, prints: null, ...terms },
    subject: 'For you',
    note: 'A note',
    watermark: DEFAULT_WATERMARK,
    delivery: 'mail',
    ...(form === undefined ? {} : { form }),
  };
  const { id } = await dispatchDocuments(deps, ida, input);
  const grants = await grantRows(deps, ida, { dispatch: id });
  const tokenOf = (address: string): string =>
    grants
      .find((grant) => grant.address === address)
      ?.link.split('/')
      .at(-1) ?? '';
  return { id, grants, tokenOf };
}

export function stranger(browser = 'browser-1', network = '203.0.113.24'): StrangerActor {
  return {
    kind: 'stranger',
    browser,
    language: null,
    from: { network, agent: 'Mozilla/5.0 (X11; Linux) Firefox/130' },
  };
}

/** The newest code mailed to an address. */
export async function newestCode({ deps }: Product, address: string): Promise<string> {
  await deliverMail(deps);
  const { messages } = await readMailroom(deps, { address });
  return (
    messages
      .find((message) => /^\d{3} \d{3} /.test(message.subject))
      ?.subject.replaceAll(/\D/g, '') ?? ''
  );
}

export async function newPublicKey(): Promise<{ kty: 'EC'; crv: 'P-256'; x: string; y: string }> {
  const { publicKey } = await webcrypto.subtle.generateKey(
    { name: 'ECDSA', namedCurve: 'P-256' },
    false,
    ['sign', 'verify'],
  );
  const { x = '', y = '' } = await webcrypto.subtle.exportKey('jwk', publicKey);
  return { kty: 'EC', crv: 'P-256', x, y };
}

/** Proves an address as a person does, by the code in their mailbox. */
export async function prove(
  product: Product,
  token: string,
  address: string,
): Promise<ReaderActor> {
  const { deps, clock } = product;
  const actor = stranger(randomBytes(8).toString('hex'));
  await requestCode(deps, actor, { token, address });
  const { deviceToken } = await enterCode(deps, actor, {
    token,
    address,
    code: await newestCode(product, address),
    kept: false,
    publicKey: await newPublicKey(),
  });
  const device = await findDeviceByToken(
    deps.db.read,
    deps.vault.mac('device', deviceToken),
    clock.now(),
  );
  if (device === null) throw new Error('no device');
  return {
    kind: 'reader',
    device: device.id,
    kept: device.kept,
    provenAt: device.provenAt,
    passkeyAt: device.passkeyAt,
    address,
    recipient: (await findRecipientByAddress(deps.db.read, address))?.id ?? null,
    from: actor.from,
  };
}

/** Every file below a folder. */
export function filesIn(folder: string): string[] {
  return readdirSync(folder, { recursive: true, encoding: 'utf8' })
    .map((name) => path.join(folder, name))
    .filter((file) => statSync(file).isFile());
}

/** Whether these bytes stand anywhere on the disk below a folder. */
export function isOnDisk(folder: string, bytes: Uint8Array): boolean {
  return filesIn(folder).some((file) => readFileSync(file).includes(Buffer.from(bytes)));
}

/** A file that is made while it is sent, whole. */
export async function whole({ pieces }: Pick<Made, 'pieces'>): Promise<Uint8Array> {
  const parts: Uint8Array[] = [];
  for await (const piece of pieces) parts.push(piece);
  return new Uint8Array(Buffer.concat(parts));
}

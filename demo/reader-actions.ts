import { webcrypto } from 'node:crypto';
import type { DocumentId, LicenceId, VersionId } from '@/core/base/ids';
import { MINUTE, SECOND } from '@/core/base/time';
import { readMailroom, readMessage } from '@/server/services/demo/read-mailroom';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import type { Deps, ReaderActor, StrangerActor } from '@/server/services/base/deps';
import { handIn } from '@/server/services/reading/hand-in';
import { takeKey } from '@/server/services/reading/take-key';
import { openDocument } from '@/server/services/reading/open-document';
import { enterCode, requestCode } from '@/server/services/reading/prove-address';
import { printDocument } from '@/server/services/reading/take-copies';
import { noteReading, renderPage } from '@/server/services/reading/read-pages';
import {
  findDeviceByToken,
  findRecipientByAddress,
} from '@/server/repositories/reading/reader-repository';

const AGENT = 'Mozilla/5.0 (X11; Linux x86_64) Chrome/120 (demo)';

async function publicKey(): Promise<{ kty: 'EC'; crv: 'P-256'; x: string; y: string }> {
  const { publicKey: key } = await webcrypto.subtle.generateKey(
    { name: 'ECDSA', namedCurve: 'P-256' },
    false,
    ['sign', 'verify'],
  );
  const { x = '', y = '' } = await webcrypto.subtle.exportKey('jwk', key);
  return { kty: 'EC', crv: 'P-256', x, y };
}

/** The newest code in a mailbox. */
async function codeFor(deps: Deps, address: string): Promise<string> {
  await deliverMail(deps);
  const { messages } = await readMailroom(deps, { address });
  const newest = messages.find((message) => /^\d{3} \d{3} /.test(message.subject));
  const message = await readMessage(deps, { id: newest?.id ?? '' });
  return /^Subject: (\d{3}) (\d{3})/m.exec(message.raw)?.slice(1).join('') ?? '';
}

/** Proves an address by a code, as a person at a browser does. */
export async function prove(
  deps: Deps,
  token: string,
  address: string,
  network: string,
): Promise<ReaderActor> {
  const from = { network, agent: AGENT };
  const actor: StrangerActor = {
    kind: 'stranger',
    browser: `demo ${address}`,
    language: null,
    from,
  };
  await requestCode(deps, actor, { token, address });
  const { deviceToken } = await enterCode(deps, actor, {
    token,
    address,
    code: await codeFor(deps, address),
    kept: true,
    publicKey: await publicKey(),
  });
  const device = await findDeviceByToken(
    deps.db.read,
    deps.vault.mac('device', deviceToken),
    deps.clock.now(),
  );
  const recipient = await findRecipientByAddress(deps.db.read, address);
  if (device === null) throw new Error(`The device of ${address} was not made.`);
  return {
    kind: 'reader',
    device: device.id,
    kept: device.kept,
    provenAt: device.provenAt,
    passkeyAt: device.passkeyAt,
    address,
    recipient: recipient?.id ?? null,
    from,
  };
}

/** Opens a document and turns some pages. @returns the open, or `null` where it was refused */
export async function read(
  deps: Deps,
  reader: ReaderActor,
  token: string,
  document: DocumentId,
  pages: number,
): Promise<LicenceId | null> {
  const opened = await openDocument(deps, reader, { token, document });
  if (opened.outcome === 'refused') return null;
  const seen = Array.from({ length: Math.min(pages, opened.pages) }, (_each, i) => i + 1);
  for (const page of seen)
    await renderPage(deps, reader, { licence: opened.licence, page, width: 800 });
  if (seen.length === 0) return opened.licence;
  // What their browser tells a while later: no two pages take the same time.
  const later = { ...deps, clock: { ...deps.clock, now: () => deps.clock.now() + 10 * MINUTE } };
  await noteReading(later, reader, {
    licence: opened.licence,
    pages: seen.map((page) => ({ page, shown: (4 + ((page * 37) % 53)) * SECOND })),
  });
  return opened.licence;
}

export async function print(deps: Deps, reader: ReaderActor, licence: LicenceId): Promise<void> {
  await printDocument(deps, reader, { licence, from: 1, to: 1 });
}

/** Opens the protected file of an open on their own machine, and reads it there without a connection. */
export async function readAway(
  deps: Deps,
  reader: ReaderActor,
  licence: LicenceId,
  version: VersionId,
  away: { readonly openedAt: number; readonly backAt: number },
): Promise<void> {
  await takeKey(deps, reader, { licence, version, boxKey: await publicKey() });
  const back = { ...deps, clock: { ...deps.clock, now: () => away.backAt } };
  await handIn(back, reader, {
    opens: [
      {
        licence,
        number: 1,
        openedAt: away.openedAt,
        pages: [
          [1, 70 * SECOND],
          [2, 25 * SECOND],
        ],
      },
    ],
    kept: [],
    forgotten: [],
  });
}

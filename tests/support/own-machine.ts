// Documents that people read on their own machine.
import { sodiumChunkCipher } from '@/core/age/sodium-cipher';
import type { DispatchId, DocumentId, LicenceId, VersionId } from '@/core/base/ids';
import { unboxKey, type BoxKey } from '@/core/licence/key-box';
import { readOwnLicence, type OwnLicence } from '@/core/licence/own-licence';
import type { Issuer } from '@/core/licence/statement';
import { openOwnDocument, type OwnDocument } from '@/core/own-machine/own-document';
import { carriedScripts } from '@/core/watermark/carried-glyphs';
import { createMarker } from '@/core/watermark/marker';
import type { DispatchInput } from '@/contracts/dispatch';
import type { KeyTaken } from '@/contracts/own-machine';
import { findDocument } from '@/server/repositories/documents/document-repository';
import type { ReaderActor } from '@/server/services/base/deps';
import { loadInstalledPdfium } from '@/server/rendering/load-pdfium';
import { openDocument } from '@/server/services/reading/open-document';
import { takeKey } from '@/server/services/reading/take-key';
import { present } from './present';
import { dispatch, drawing, protect, prove, type Product } from './product';

/** A document of two pages that was sent to somebody, on a device that is remembered. */
export type SentOwn = {
  readonly document: DocumentId;
  readonly version: VersionId;
  readonly reader: ReaderActor;
  readonly token: string;
  readonly dispatch: DispatchId;
  readonly grants: Awaited<ReturnType<typeof dispatch>>['grants'];
};

let people = 0;

/** Sends one to somebody new. */
export async function sendOwn(
  product: Product,
  terms: Partial<DispatchInput['terms']>,
  form?: DispatchInput['form'],
): Promise<SentOwn> {
  const address = `vane.${String(++people)}@brackwater.example`;
  const document = await protect(product, await drawing(2));
  const { id, tokenOf, grants } = await dispatch(product, [document], [address], terms, form);
  const token = tokenOf(address);
  const reader = { ...(await prove(product, token, address)), kept: true };
  const { version } = present(await findDocument(product.deps.db.read, document));
  return { document, version: version.id, reader, token, dispatch: id, grants };
}

export async function openOwn(
  product: Product,
  { reader, token, document }: SentOwn,
): Promise<LicenceId> {
  const opened = await openDocument(product.deps, reader, { token, document });
  if (opened.outcome === 'refused') throw new Error(opened.reason);
  return opened.licence;
}

export async function takeOwnKey(
  product: Product,
  { reader, version }: SentOwn,
  licence: LicenceId,
  boxKey: BoxKey,
): Promise<KeyTaken> {
  const taken = await takeKey(product.deps, reader, { licence, version, boxKey });
  if (taken.outcome === 'refused') throw new Error(taken.reason);
  return taken;
}

export function issuerOf({ issuer }: KeyTaken): Issuer {
  return { name: issuer.name, publicKey: Buffer.from(issuer.publicKey, 'base64url') };
}

export function licenceIn(product: Product, taken: KeyTaken): Promise<OwnLicence> {
  const { name, publicKey } = issuerOf(taken);
  return readOwnLicence(taken.statement, publicKey, name, product.clock.now());
}

const pdfium = await loadInstalledPdfium();
const cipher = await sodiumChunkCipher();

/** Opens a protected file as the reader does on a person's own machine. */
export async function openOnMachine(
  product: Product,
  taken: KeyTaken,
  privateKey: CryptoKey,
  file: Uint8Array,
): Promise<OwnDocument> {
  const licence = await licenceIn(product, taken);
  return openOwnDocument(
    { size: file.length, readAt: (offset, length) => file.subarray(offset, offset + length) },
    {
      licence,
      fileKey: await unboxKey(taken.box, privateKey, licence.id),
      cipher,
      pdfium,
      marker: createMarker(carriedScripts(taken.glyphs)),
      now: () => product.clock.now(),
    },
  );
}

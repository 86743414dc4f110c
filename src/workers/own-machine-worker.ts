// Reads a protected file in the browser: decrypts, draws and marks, apart from the page that shows it.
import { base64urlnopad } from '@scure/base';
import { isAppError } from '@/core/base/errors';
import { sodiumChunkCipher } from '@/core/age/sodium-cipher';
import { boxThumbprint, unboxKey } from '@/core/licence/key-box';
import { readOwnLicence, type OwnLicence } from '@/core/licence/own-licence';
import { readPermit } from '@/core/licence/permit';
import { LicenceError, type Issuer } from '@/core/licence/statement';
import { OwnMachineError } from '@/core/own-machine/errors';
import { openOwnDocument, type OwnDocument } from '@/core/own-machine/own-document';
import { loadPdfium } from '@/core/pages/pdfium';
import { carriedScripts } from '@/core/watermark/carried-glyphs';
import { createMarker } from '@/core/watermark/marker';
import { encoded, keptFile, printedPdf } from '@/workers/own-copies';
import type { OwnAnswers, OwnAsked, OwnReply } from '@/contracts/own-machine';

type Scope = {
  onmessage: ((event: { readonly data: OwnAsked & { readonly id: number } }) => void) | null;
  readonly postMessage: (reply: OwnReply) => void;
};
declare class FileReaderSync {
  readAsArrayBuffer(blob: Blob): ArrayBuffer;
}

const scope = self as unknown as Scope;
const files = new FileReaderSync();
type Open = {
  readonly document: OwnDocument;
  readonly licence: OwnLicence;
  readonly issuer: Issuer;
  readonly now: () => number;
};
let opened: Open | null = null;

async function open({
  file,
  taken,
  boxKey,
  privateKey,
  now: begins,
  wasm,
}: OwnAsked & { readonly kind: 'open' }): Promise<OwnAnswers['open']> {
  // The service's clock goes on from here: this machine's own may be wrong, or set back meanwhile; the
  // other one stands still while the machine sleeps.
  const [began, beganAt] = [performance.now(), Date.now()];
  const now = (): number => begins + Math.max(performance.now() - began, Date.now() - beganAt);
  const { statement, box, glyphs } = taken;
  const issuer: Issuer = {
    name: taken.issuer.name,
    publicKey: base64urlnopad.decode(taken.issuer.publicKey),
  };
  const [pdfium, cipher, licence] = await Promise.all([
    WebAssembly.compile(wasm).then(loadPdfium),
    sodiumChunkCipher(),
    readOwnLicence(statement, issuer.publicKey, issuer.name, begins),
  ]);
  if (licence.keyThumbprint !== (await boxThumbprint(boxKey)))
    throw new LicenceError('of another device');
  const document = await openOwnDocument(
    {
      size: file.size,
      readAt: (offset, length) =>
        new Uint8Array(files.readAsArrayBuffer(file.slice(offset, offset + length))),
    },
    {
      licence,
      fileKey: await unboxKey(box, privateKey, licence.id),
      cipher,
      pdfium,
      marker: createMarker(carriedScripts(glyphs)),
      now,
    },
  );
  opened = { document, licence, issuer, now };
  return { pages: document.pages };
}

function needOpen(): Open {
  if (opened === null) throw new OwnMachineError('LICENCE_OVER');
  return opened;
}

async function print({
  permit: statement,
  glyphs,
  title,
}: OwnAsked & { readonly kind: 'print' }): Promise<OwnAnswers['print']> {
  const { document, licence, issuer, now } = needOpen();
  const permit = await readPermit(statement, issuer, licence.id, now());
  return { blob: await printedPdf(document, permit, createMarker(carriedScripts(glyphs)), title) };
}

async function keep({
  permit: statement,
  glyphs,
}: OwnAsked & { readonly kind: 'keep' }): Promise<OwnAnswers['keep']> {
  const { document, licence, issuer, now } = needOpen();
  const permit = await readPermit(statement, issuer, licence.id, now());
  const marker = createMarker(carriedScripts(glyphs));
  return keptFile(document.plain(permit), permit.watermark, marker);
}

async function answer(asked: OwnAsked): Promise<OwnAnswers[keyof OwnAnswers]> {
  switch (asked.kind) {
    case 'open':
      return open(asked);
    case 'picture': {
      const { picture, points } = await needOpen().document.picture(asked.wanted);
      return { blob: await encoded(picture, 'image/png'), points };
    }
    case 'print':
      return print(asked);
    case 'keep':
      return keep(asked);
    case 'text':
      return needOpen().document.text(asked.page);
    case 'outline':
      return needOpen().document.outline();
    case 'find':
      return needOpen().document.find(asked.words, asked.from);
  }
}

scope.onmessage = ({ data }) => {
  answer(data).then(
    (result) => {
      scope.postMessage({ id: data.id, ok: true, result });
    },
    (error: unknown) => {
      const code = isAppError(error) ? error.code : 'FAILED';
      scope.postMessage({ id: data.id, ok: false, code });
    },
  );
};

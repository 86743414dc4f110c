// Reads a protected file in the browser: decrypts, draws and marks, apart from the page that shows it.
import { base64urlnopad } from '@scure/base';
import { isAppError } from '@/core/base/errors';
import { sodiumChunkCipher } from '@/core/age/sodium-cipher';
import { boxThumbprint, unboxKey } from '@/core/licence/key-box';
import { LicenceError } from '@/core/licence/licence';
import { readOwnLicence } from '@/core/licence/own-licence';
import { OwnMachineError } from '@/core/own-machine/errors';
import { openOwnDocument, type OwnDocument } from '@/core/own-machine/own-document';
import { loadPdfium } from '@/core/pages/pdfium';
import { carriedScripts } from '@/core/watermark/carried-glyphs';
import type { Picture } from '@/core/watermark/burn';
import { createMarker } from '@/core/watermark/marker';
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
let document: OwnDocument | null = null;

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
  const { statement, box, issuer, glyphs } = taken;
  const [pdfium, cipher, licence] = await Promise.all([
    WebAssembly.compile(wasm).then(loadPdfium),
    sodiumChunkCipher(),
    readOwnLicence(statement, base64urlnopad.decode(issuer.publicKey), issuer.name, begins),
  ]);
  if (licence.keyThumbprint !== (await boxThumbprint(boxKey)))
    throw new LicenceError('of another device');
  document = await openOwnDocument(
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
  return { pages: document.pages };
}

function asPng({ width, height, rgba }: Picture): Promise<Blob> {
  const canvas = new OffscreenCanvas(width, height);
  const pixels = new Uint8ClampedArray(rgba.buffer as ArrayBuffer, rgba.byteOffset, rgba.length);
  canvas.getContext('2d')?.putImageData(new ImageData(pixels, width, height), 0, 0);
  return canvas.convertToBlob({ type: 'image/png' });
}

function needDocument(): OwnDocument {
  if (document === null) throw new OwnMachineError('LICENCE_OVER');
  return document;
}

async function answer(asked: OwnAsked): Promise<OwnAnswers[keyof OwnAnswers]> {
  switch (asked.kind) {
    case 'open':
      return open(asked);
    case 'picture': {
      const { picture, points } = await needDocument().picture(asked.wanted);
      return { blob: await asPng(picture), points };
    }
    case 'text':
      return needDocument().text(asked.page);
    case 'outline':
      return needDocument().outline();
    case 'find':
      return needDocument().find(asked.words, asked.from);
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

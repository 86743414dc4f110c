import { latin1 } from '@/core/base/bytes';
import { WrapperError } from '@/core/wrapper/errors';
import { FORMAT, MARK } from '@/core/wrapper/write';

/** Reads up to `length` bytes at `offset`; fewer only at the end of the file. */
export type ReadBytes = (offset: number, length: number) => Promise<Uint8Array>;

/** Where the age file lies inside a protected file, in bytes, and where the file says it is read. */
export type Payload = { readonly offset: number; readonly length: number; readonly link: string };

/** More than the tail we write ever has, far below what would hurt. */
const TAIL = 1024;
/** The mark with the longest link. */
const MARK_LINE = MARK.length + 1010;
/** The stream's dictionary, up to `stream\n`. */
const DICTIONARY = 512;

/** The end of the file: the stream's, the two entries of the cross-reference table, the trailer. */
const tailForm = new RegExp(
  [
    /\nendstream\nendobj\nxref\n(\d{1,7}) 2\n(\d{10}) 00000 n \n(\d{10}) 00000 n \ntrailer\n/,
    /<< \/Size (\d{1,7}) \/Root \d{1,7} 0 R \/Prev \d{1,10} /,
    /\/ID \[<[0-9a-f]{32}> <[0-9a-f]{32}>\] >>\nstartxref\n(\d{1,10})\n%%EOF\n$/,
  ]
    .map(({ source }) => source)
    .join(''),
);
const markForm = new RegExp(`${MARK} (\\d{1,6})(?: ([!-~]{1,1000}))?[^\\n]*\\n$`);
const streamForm = new RegExp(
  [
    /^(\d{1,7}) 0 obj\n<< \/Type \/EmbeddedFile \/Subtype \/application#2Foctet-stream /,
    /\/Length (\d{1,10}) \/Params << \/Size (\d{1,10}) >> >>\nstream\n/,
  ]
    .map(({ source }) => source)
    .join(''),
);

async function readText(read: ReadBytes, offset: number, length: number): Promise<string> {
  return latin1(await read(offset, length));
}

/** Whether the file begins as PDFs do; only then is it worth saying more than that it is not ours. */
async function beginsLikePdf(read: ReadBytes): Promise<boolean> {
  return (await readText(read, 0, 5)) === '%PDF-';
}

/**
 * Finds the age file inside a protected file of `size` bytes, as docs/format.md lays it out. Reads
 * a few hundred bytes at its end and before the payload, whatever its size.
 *
 * Nothing found here is authenticated: the age file protects itself, and its own length says
 * whether it is whole.
 *
 * @throws WrapperError
 */
export async function findPayload(read: ReadBytes, size: number): Promise<Payload> {
  if (!(await beginsLikePdf(read))) throw new WrapperError('NOT_PROTECTED', 'no PDF');
  const tailStart = Math.max(0, size - TAIL);
  const tail = tailForm.exec(await readText(read, tailStart, size - tailStart));
  if (tail === null) return lookCloser(read, size);
  const [file, fileAt, payloadAt, sizeEntry, tableAt] = tail.slice(1, 6).map(Number) as [
    number,
    number,
    number,
    number,
    number,
  ];
  const end = tailStart + tail.index;
  if (sizeEntry !== file + 2 || tableAt !== end + '\nendstream\nendobj\n'.length)
    throw new WrapperError('DAMAGED', 'cross-reference table');

  const link = await findLink(read, fileAt);
  const stream = streamForm.exec(await readText(read, payloadAt, DICTIONARY));
  if (stream === null) throw new WrapperError('DAMAGED', 'payload dictionary');
  const [object, length, stated] = stream.slice(1, 4).map(Number) as [number, number, number];
  const offset = payloadAt + stream[0].length;
  if (object !== file + 1 || length !== stated || offset + length !== end)
    throw new WrapperError('DAMAGED', 'payload length');
  return { offset, length, link };
}

/** Whether a PDF is a protected file, or was one before another program saved it anew. */
export async function isProtectedFile(read: ReadBytes, size: number): Promise<boolean> {
  try {
    await findPayload(read, size);
    return true;
  } catch (error) {
    if (error instanceof WrapperError) return error.code !== 'NOT_PROTECTED';
    throw error;
  }
}

/** The link in the mark before the file's object. @throws WrapperError */
async function findLink(read: ReadBytes, fileAt: number): Promise<string> {
  const before = Math.min(fileAt, MARK_LINE);
  const mark = markForm.exec(await readText(read, fileAt - before, before));
  if (mark === null) throw new WrapperError('NOT_PROTECTED', 'no mark');
  const [, version = '', link] = mark;
  if (Number(version) > FORMAT) throw new WrapperError('NEWER', version);
  if (link === undefined) throw new WrapperError('DAMAGED', 'no link');
  return link;
}

/** What to say of a PDF without our ending: whether it was once a protected file. */
async function lookCloser(read: ReadBytes, size: number): Promise<never> {
  const head = await readText(read, 0, Math.min(size, 1 << 17));
  const version = new RegExp(`\\n${MARK} (\\d{1,6})[ \\n]`).exec(head)?.[1];
  if (version !== undefined && Number(version) > FORMAT) throw new WrapperError('NEWER', version);
  // Another program that saved it anew drops comments, and keeps what the catalog names.
  if (version !== undefined || head.includes('/EncryptedPayload'))
    throw new WrapperError('DAMAGED', 'no ending of ours');
  throw new WrapperError('NOT_PROTECTED', 'no mark');
}

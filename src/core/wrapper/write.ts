import { utf8 } from '@/core/base/bytes';
import { WrapperError } from '@/core/wrapper/errors';

/** Version of the format (docs/format.md): stands in the file and is checked when it is read. */
export const FORMAT = 1;
/** The comment that begins our part of the file. */
export const MARK = '%embargo protected file';
/** What a link may look like in the mark. */
const LINK = /^[!-~]{1,1000}$/;
/** Largest payload: a classic cross-reference table has ten digits for an offset. */
const LARGEST = 9_000_000_000;

/**
 * A cover page as a whole PDF whose catalog already refers to the file specification that is to
 * come, as object `fileObject`.
 */
export type Cover = {
  readonly pdf: Uint8Array;
  /** The first object number that the cover does not use: the file specification; the next is the payload. */
  readonly fileObject: number;
  /** Object number of the catalog. */
  readonly rootObject: number;
  /** Where the file is read, as the cover says it: printable ASCII without spaces. */
  readonly link: string;
  /** File identifier, 16 bytes (ISO 32000-2, 14.4). */
  readonly id: Uint8Array;
};

/** What stands before and after the payload. The payload begins at `head.length`. */
export type Envelope = { readonly head: Uint8Array; readonly tail: Uint8Array };

function hex(bytes: Uint8Array): string {
  return Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** A PDF text string (ISO 32000-2, 7.9.2.2) as UTF-16BE in hex. */
function textString(text: string): string {
  const unit = (at: number): string => text.charCodeAt(at).toString(16).padStart(4, '0');
  return `<FEFF${Array.from({ length: text.length }, (_, at) => unit(at)).join('')}>`;
}

/**
 * Where the cover's own cross-reference table stands. @throws WrapperError `DAMAGED` where the
 * cover is no PDF as we write them
 */
function coverTable(pdf: Uint8Array): number {
  const end = new TextDecoder('latin1').decode(pdf.subarray(-64));
  const found = /startxref\n(\d+)\n%%EOF\n?$/.exec(end)?.[1];
  if (found === undefined) throw new WrapperError('DAMAGED', 'cover without startxref');
  return Number(found);
}

/** One entry of a classic cross-reference table: exactly 20 bytes (ISO 32000-2, 7.5.4). */
function tableEntry(offset: number): string {
  return `${String(offset).padStart(10, '0')} 00000 n \n`;
}

/**
 * What surrounds an age file of `payloadBytes` bytes to make it a protected file: an incremental
 * update of the cover (ISO 32000-2, 7.5.6) that adds the file specification and the raw stream.
 * Neither needs the payload itself, so that it can be copied through, however large it is.
 *
 * @param name the name of the file inside, `<reference>.age`
 * @throws WrapperError `DAMAGED` where the payload is too large for the format, or the link is none
 */
export function envelope(cover: Cover, payloadBytes: number, name: string): Envelope {
  if (!LINK.test(cover.link)) throw new WrapperError('DAMAGED', 'link');
  if (payloadBytes > LARGEST) throw new WrapperError('DAMAGED', 'payload too large');
  const file = cover.fileObject;
  const payload = file + 1;
  const newline = cover.pdf.at(-1) === 0x0a ? '' : '\n';
  const mark = `${newline}${MARK} ${String(FORMAT)} ${cover.link}\n`;
  const fileAt = cover.pdf.length + mark.length;
  const specification =
    `${String(file)} 0 obj\n<< /Type /Filespec /F ${textString(name)} /UF ${textString(name)} ` +
    `/AFRelationship /EncryptedPayload /EF << /F ${String(payload)} 0 R /UF ${String(payload)} ` +
    '0 R >> /EP << /Type /EncryptedPayload /Subtype /age /Version (v1) >> /Desc (The document, ' +
    'encrypted as an age file) >>\nendobj\n';
  const payloadAt = fileAt + specification.length;
  const stream =
    `${String(payload)} 0 obj\n<< /Type /EmbeddedFile /Subtype /application#2Foctet-stream ` +
    `/Length ${String(payloadBytes)} /Params << /Size ${String(payloadBytes)} >> >>\nstream\n`;
  const update = utf8(mark + specification + stream);
  const head = new Uint8Array(cover.pdf.length + update.length);
  head.set(cover.pdf);
  head.set(update, cover.pdf.length);

  const close = '\nendstream\nendobj\n';
  const tableAt = head.length + payloadBytes + close.length;
  const tail =
    `${close}xref\n${String(file)} 2\n${tableEntry(fileAt)}${tableEntry(payloadAt)}trailer\n<< ` +
    `/Size ${String(payload + 1)} /Root ${String(cover.rootObject)} 0 R /Prev ` +
    `${String(coverTable(cover.pdf))} /ID [<${hex(cover.id)}> <${hex(cover.id)}>] ` +
    `>>\nstartxref\n${String(tableAt)}\n%%EOF\n`;
  return { head, tail: utf8(tail) };
}

import { hkdf } from '@noble/hashes/hkdf.js';
import { hmac } from '@noble/hashes/hmac.js';
import { sha256 } from '@noble/hashes/sha2.js';
import { base64nopad } from '@scure/base';
import { concatBytes, equalBytes, utf8 } from '@/core/base/bytes';
import { AgeError } from '@/core/age/errors';

/** One recipient stanza: `args[0]` is its type; the body is what only that recipient understands. */
export type Stanza = { readonly args: readonly string[]; readonly body: Uint8Array };

/** A parsed header. Nothing in it is authenticated until `verifyHeader` has said yes. */
export type Header = {
  readonly stanzas: readonly Stanza[];
  readonly mac: Uint8Array;
  /** The bytes under the MAC: everything up to and including `---`. */
  readonly signed: Uint8Array;
  /** Length of the whole header in bytes; the payload begins there. */
  readonly length: number;
};

/** Our own limit on a header, in bytes: far above anything honest, far below what would hurt. */
export const MAX_HEADER = 1 << 20;

const VERSION_LINE = 'age-encryption.org/v1';
const BODY_COLUMNS = 64;
const MAC_BYTES = 32;

/** The MAC over the header (age v1, "Header MAC"): HMAC-SHA-256 under HKDF(file key, info "header"). */
function headerMac(signed: Uint8Array, fileKey: Uint8Array): Uint8Array {
  const macKey = hkdf(sha256, fileKey, new Uint8Array(0), utf8('header'), 32);
  return hmac(sha256, macKey, signed);
}

function encodeStanza({ args, body }: Stanza): string {
  const text = base64nopad.encode(body);
  const lines: string[] = [];
  for (let at = 0; at < text.length; at += BODY_COLUMNS)
    lines.push(text.slice(at, at + BODY_COLUMNS));
  // The last line is always shorter than 64 columns, so a full one is followed by an empty one.
  if (text.length % BODY_COLUMNS === 0) lines.push('');
  return `-> ${args.join(' ')}\n${lines.join('\n')}\n`;
}

/**
 * A whole header for these stanzas, with its MAC. @throws AgeError `BAD_HEADER` where an argument
 * cannot be written.
 */
export function encodeHeader(stanzas: readonly Stanza[], fileKey: Uint8Array): Uint8Array {
  const args = stanzas.flatMap((stanza) => stanza.args);
  if (stanzas.length === 0 || args.some((arg) => !isArgument(arg)))
    throw new AgeError('BAD_HEADER', 'stanza argument');
  const signed = utf8(`${VERSION_LINE}\n${stanzas.map(encodeStanza).join('')}---`);
  return concatBytes(signed, utf8(` ${base64nopad.encode(headerMac(signed, fileKey))}\n`));
}

/** Whether the header's MAC was made with this file key. */
export function verifyHeader(header: Header, fileKey: Uint8Array): boolean {
  return equalBytes(header.mac, headerMac(header.signed, fileKey));
}

function isArgument(text: string): boolean {
  return /^[!-~]+$/.test(text);
}

/** base64nopad refuses padding, foreign characters and trailing bits, as the specification asks. */
function decodeBase64(text: string): Uint8Array {
  try {
    return base64nopad.decode(text);
  } catch {
    throw new AgeError('BAD_HEADER', 'base64');
  }
}

/** Reads the lines of a header one by one, as ASCII, from the start of `bytes`. */
class LineReader {
  #at = 0;

  constructor(private readonly bytes: Uint8Array) {}

  get position(): number {
    return this.#at;
  }

  next(): string {
    const end = this.bytes.indexOf(0x0a, this.#at);
    if (end < 0) throw new AgeError(this.bytes.length > MAX_HEADER ? 'BAD_HEADER' : 'TOO_SHORT');
    let line = '';
    for (const byte of this.bytes.subarray(this.#at, end)) {
      if (byte < 0x20 || byte > 0x7e) throw new AgeError('BAD_HEADER', 'control or non-ASCII byte');
      line += String.fromCharCode(byte);
    }
    this.#at = end + 1;
    return line;
  }
}

function parseStanza(firstLine: string, lines: LineReader): Stanza {
  const args = firstLine.slice(3).split(' ');
  if (!args.every(isArgument)) throw new AgeError('BAD_HEADER', 'stanza argument');
  let body = '';
  for (;;) {
    const line = lines.next();
    if (line.length > BODY_COLUMNS) throw new AgeError('BAD_HEADER', 'stanza line too long');
    body += line;
    if (line.length < BODY_COLUMNS) return { args, body: decodeBase64(body) };
  }
}

/**
 * Reads the header at the start of `bytes` (age v1, "Header").
 *
 * @throws AgeError `NOT_AGE`, `BAD_HEADER`, or `TOO_SHORT` where more bytes may help
 */
export function parseHeader(bytes: Uint8Array): Header {
  const version = utf8(`${VERSION_LINE}\n`);
  const start = bytes.subarray(0, version.length);
  if (!equalBytes(start, version.subarray(0, start.length))) throw new AgeError('NOT_AGE');
  const lines = new LineReader(bytes);
  lines.next();

  const stanzas: Stanza[] = [];
  for (;;) {
    const lineStart = lines.position;
    const line = lines.next();
    if (line.startsWith('-> ')) {
      stanzas.push(parseStanza(line, lines));
      continue;
    }
    if (!line.startsWith('--- ')) throw new AgeError('BAD_HEADER', 'neither a stanza nor the MAC');
    const mac = decodeBase64(line.slice(4));
    if (mac.length !== MAC_BYTES || stanzas.length === 0)
      throw new AgeError('BAD_HEADER', 'MAC length or no stanza');
    return { stanzas, mac, signed: bytes.slice(0, lineStart + 3), length: lines.position };
  }
}

import { generateX25519Identity, identityToRecipient } from 'age-encryption';
import { AgeError } from '@/core/age/errors';
import { encodeHeader, parseHeader } from '@/core/age/header';
import { embargoStanza, findEmbargoStanza } from '@/core/age/embargo-stanza';
import { newFileKey } from '@/core/age/recipients';
import { concatBytes, equalBytes, utf8 } from '@/core/base/bytes';
import { WrapperError } from '@/core/wrapper/errors';
import { inspectFile } from '@/core/wrapper/inspect';
import { envelope } from '@/core/wrapper/write';
import { coverFacts, covers } from '../support/covers';
import { mutate, numbersFrom } from './mutate';

/** What headers and wrappers are made of, and what parsers trip over. */
const words = [
  '-> ',
  '\n',
  '--- ',
  ' ',
  'X25519',
  'embargo',
  'age-encryption.org/v1\n',
  'AAAA',
  '=',
  'a'.repeat(64),
  '\0',
  '\r\n',
  '%PDF-2.0\n',
  'startxref\n',
  '%%EOF\n',
  '99999999999999999999',
  '-1',
  ' 0 obj\n',
  'stream\n',
  '\nendstream\nendobj\n',
  '/Length 0',
  '%embargo protected file 1 ',
  'xref\n',
  '0000000000 00000 n \n',
  ']>>\n',
].map(utf8);

async function seeds(): Promise<{
  readonly headers: readonly Uint8Array[];
  readonly tails: readonly Uint8Array[];
}> {
  const { fileKey, stanzas } = await newFileKey([
    await identityToRecipient(await generateX25519Identity()),
  ]);
  const header = encodeHeader(
    [
      embargoStanza('ver_00000000000000000001', 'https://embargo.tern-quill.example'),
      ...stanzas,
      { args: ['grease', 'x'], body: new Uint8Array(70) },
    ],
    fileKey,
  );
  const cover = await covers.draw(coverFacts, new Uint8Array(16), 'TQ-412-001.age');
  const { head, tail } = envelope(cover, header.length, 'TQ-412-001.age');
  // A cover of a few bytes instead of thousands: what is read is the end, and offsets follow from it.
  const short = { ...cover, pdf: utf8('%PDF-2.0\nstartxref\n9\n%%EOF\n') };
  const small = envelope(short, header.length, 'x.age');
  return {
    headers: [header, encodeHeader(stanzas, fileKey)],
    tails: [concatBytes(head, header, tail), concatBytes(small.head, header, small.tail)],
  };
}

/**
 * The age header parser: either what it read is written the same way again, or it refuses in its
 * own words. @throws where neither
 */
function tryHeader(bytes: Uint8Array, fileKey: Uint8Array): void {
  let header;
  try {
    header = parseHeader(bytes);
    findEmbargoStanza(header);
  } catch (error) {
    if (error instanceof AgeError) return;
    throw error;
  }
  const again = encodeHeader(header.stanzas, fileKey);
  if (!equalBytes(again.subarray(0, header.signed.length), header.signed))
    throw new Error('a header was read that is written differently');
}

/**
 * The wrapper parser: what it finds lies inside the file and is an age file, or it refuses in its
 * own words. @throws where neither
 */
async function tryWrapper(bytes: Uint8Array): Promise<void> {
  try {
    const { offset, length, header } = await inspectFile(
      (at, size) => Promise.resolve(bytes.subarray(at, at + size)),
      bytes.length,
    );
    if (offset < 0 || length < header.length || offset + length > bytes.length)
      throw new Error('a payload was found outside the file');
  } catch (error) {
    if (error instanceof WrapperError || error instanceof AgeError) return;
    throw error;
  }
}

/**
 * Feeds both parsers harmed inputs.
 *
 * @returns how many were tried, and how many were still read
 * @throws with the number of the input where a parser did anything but read or refuse it
 */
export async function fuzzParsers(
  count: number,
  seed: number,
  progress: (done: number) => void = () => undefined,
): Promise<number> {
  const { headers, tails } = await seeds();
  const next = numbersFrom(seed);
  const fileKey = new Uint8Array(16);
  for (let i = 0; i < count; i++) {
    const input =
      i % 2 === 0
        ? mutate(headers[next(headers.length)] ?? new Uint8Array(0), next, words)
        : mutate(tails[next(10) === 0 ? 0 : 1] ?? new Uint8Array(0), next, words);
    try {
      if (i % 2 === 0) tryHeader(input, fileKey);
      else await tryWrapper(input);
    } catch (error) {
      throw new Error(
        `input ${String(i)} of seed ${String(seed)}: ${Buffer.from(input.subarray(0, 4000)).toString('base64')}`,
        { cause: error },
      );
    }
    if (i % 10_000 === 0) progress(i);
  }
  return count;
}

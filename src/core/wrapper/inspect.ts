import { AgeError } from '@/core/age/errors';
import { MAX_HEADER, parseHeader, type Header } from '@/core/age/header';
import { findEmbargoStanza } from '@/core/age/embargo-stanza';
import { WrapperError } from '@/core/wrapper/errors';
import { findPayload, type ReadBytes } from '@/core/wrapper/read';

/** What a protected file, or the age file out of one, says of itself. None of it is authenticated. */
export type Inspected = {
  /** Where the age file begins and how long it is, in bytes; 0 and all of it where there is no wrapper. */
  readonly offset: number;
  readonly length: number;
  readonly header: Header;
  /** Where it is read; `null` for a bare age file. */
  readonly link: string | null;
  /** Version and service it belongs to; `null` where it was not made by Embargo. */
  readonly stanza: { readonly version: string; readonly serviceUrl: string } | null;
};

/** First so much of a header is read; more only where it goes on. */
const FIRST = 4096;

async function readHeader(read: ReadBytes, offset: number, length: number): Promise<Header> {
  try {
    return parseHeader(await read(offset, Math.min(length, FIRST)));
  } catch (error) {
    if (!(error instanceof AgeError && error.code === 'TOO_SHORT') || length <= FIRST) throw error;
    return parseHeader(await read(offset, Math.min(length, MAX_HEADER)));
  }
}

/**
 * Looks into a file of `size` bytes without opening it.
 *
 * @throws WrapperError where it is no protected file or a broken one; AgeError where the age file in it is broken
 */
export async function inspectFile(read: ReadBytes, size: number): Promise<Inspected> {
  const bare = await readHeader(read, 0, size).catch((error: unknown) => {
    if (error instanceof AgeError && error.code === 'NOT_AGE') return null;
    // An empty file begins like everything.
    if (error instanceof AgeError && error.code === 'TOO_SHORT' && size < 22)
      throw new WrapperError('NOT_PROTECTED', 'too short');
    throw error;
  });
  if (bare !== null)
    return { offset: 0, length: size, header: bare, link: null, stanza: findEmbargoStanza(bare) };
  const { offset, length, link } = await findPayload(read, size);
  const header = await readHeader(read, offset, length);
  return { offset, length, header, link, stanza: findEmbargoStanza(header) };
}

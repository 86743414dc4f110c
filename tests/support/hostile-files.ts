// Files that nobody should have to be afraid of: each is refused with a sentence, or taken in and drawn within bounds.
import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { deflate } from 'node:zlib';
import type { ContentErrorCode } from '@/core/pages/errors';
import { drawing } from './product';

const deflated = promisify<Buffer, Buffer>(deflate);

type Hostile = {
  readonly name: string;
  readonly make: () => Promise<Uint8Array> | Uint8Array;
  /** What it may be refused with. */
  readonly codes: readonly ContentErrorCode[];
  readonly sentence: RegExp;
  /** Whether it may also be taken in, where its harm is bounded otherwise. */
  readonly mayPass?: true;
  /** Whether it is stopped only after many seconds. */
  readonly takesLong?: true;
};

const object = (n: number, body: string): string => `${String(n)} 0 obj\n${body}\nendobj\n`;
const stream = (n: number, about: string, content: string): string =>
  object(n, `<< ${about} /Length ${String(content.length)} >>\nstream\n${content}\nendstream`);

/** A PDF from objects, with no cross-reference table: PDFium rebuilds it. */
export function pdf(...objects: string[]): Uint8Array {
  return new Uint8Array(
    Buffer.from(`%PDF-1.7\n${objects.join('')}trailer\n<< /Root 1 0 R >>\n%%EOF\n`, 'latin1'),
  );
}

export const CATALOG = object(1, '<< /Type /Catalog /Pages 2 0 R >>');
export const ONE_PAGE = object(2, '<< /Type /Pages /Kids [3 0 R] /Count 1 >>');

async function locked(): Promise<Uint8Array> {
  const folder = mkdtempSync(path.join(tmpdir(), 'embargo-locked-'));
  const [plain, out] = [path.join(folder, 'plain.pdf'), path.join(folder, 'locked.pdf')];
  writeFileSync(plain, await drawing(1));
  execFileSync('qpdf', ['--encrypt', 'secret', 'secret', '256', '--', plain, out]);
  const bytes = new Uint8Array(readFileSync(out));
  rmSync(folder, { recursive: true });
  return bytes;
}

/** A page tree of so many empty pages, all the same object. */
function manyPages(pages: number): Uint8Array {
  return pdf(
    CATALOG,
    object(2, `<< /Type /Pages /Kids [${'3 0 R '.repeat(pages)}] /Count ${String(pages)} >>`),
    object(3, '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 60 80] >>'),
  );
}

/** An object stream that unpacks to 1 GB. */
async function packedTooFar(): Promise<Uint8Array> {
  const packed = (await deflated(Buffer.alloc(1 << 30, ' '))).toString('latin1');
  const page = object(3, '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] >>');
  return pdf(
    CATALOG,
    ONE_PAGE,
    page,
    stream(9, '/Type /ObjStm /N 1 /First 10 /Filter /FlateDecode', packed),
  );
}

/** Drawing orders without end, deflated twice so that they stay small. */
async function endlessContent(): Promise<Uint8Array> {
  const orders = await deflated(await deflated(Buffer.alloc(256 << 20, '0 0 m 9 9 l S ')));
  const page = object(3, '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Contents 4 0 R >>');
  return pdf(
    CATALOG,
    ONE_PAGE,
    page,
    stream(4, '/Filter [/FlateDecode /FlateDecode]', orders.toString('latin1')),
  );
}

function formLoop(): Uint8Array {
  const form = (n: number, other: number): string =>
    stream(
      n,
      `/Type /XObject /Subtype /Form /BBox [0 0 600 800] /Resources << /XObject << /A ${String(other)} 0 R >> >>`,
      '/A Do /A Do',
    );
  const page = object(
    3,
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 600 800] /Contents 6 0 R /Resources << /XObject << /A 4 0 R >> >> >>',
  );
  return pdf(CATALOG, ONE_PAGE, page, form(4, 5), form(5, 4), stream(6, '', '/A Do'));
}

export const HOSTILE_FILES: readonly Hostile[] = [
  {
    name: 'a picture called .pdf',
    make: () =>
      new Uint8Array(
        Buffer.from('89504e470d0a1a0a0000000d49484452000000010000000108060000001f15c489', 'hex'),
      ),
    codes: ['NOT_A_PDF'],
    sentence: /PNG/,
  },
  {
    name: 'plain text called .pdf',
    make: () => new Uint8Array(Buffer.from('Dear all,\n')),
    codes: ['NOT_A_PDF'],
    sentence: /not a PDF/,
  },
  {
    name: 'a head without a body',
    make: () => new Uint8Array(Buffer.from('%PDF-1.7\nnothing follows')),
    codes: ['PDF_DAMAGED'],
    sentence: /damaged/,
  },
  {
    name: 'half a file',
    make: async () => (await drawing(6)).subarray(0, 300),
    codes: ['PDF_DAMAGED'],
    sentence: /damaged/,
  },
  {
    name: 'a page tree that bites its tail',
    make: () => pdf(CATALOG, object(2, '<< /Type /Pages /Kids [2 0 R 2 0 R] /Count 2 >>')),
    codes: ['PDF_DAMAGED'],
    sentence: /damaged/,
  },
  {
    name: 'no pages',
    make: () => pdf(CATALOG, object(2, '<< /Type /Pages /Kids [] /Count 0 >>')),
    codes: ['PDF_DAMAGED'],
    sentence: /damaged/,
  },
  { name: 'a password', make: locked, codes: ['PDF_LOCKED'], sentence: /password/ },
  {
    name: '20,001 pages',
    make: () => manyPages(20_001),
    codes: ['PDF_TOO_MANY_PAGES'],
    sentence: /20,000 pages/,
  },
  {
    name: 'objects that unpack to 1 GB',
    takesLong: true,
    make: packedTooFar,
    codes: ['PDF_UNPACKS_TOO_FAR'],
    sentence: /unpacks/,
  },
  {
    name: 'a content stream that inflates without end',
    takesLong: true,
    make: endlessContent,
    codes: ['PDF_TOO_DEMANDING', 'PDF_DAMAGED', 'PDF_UNPACKS_TOO_FAR'],
    sentence: /stopped|damaged|unpacks/,
    mayPass: true,
  },
  {
    name: 'forms that draw each other',
    takesLong: true,
    make: formLoop,
    codes: ['PDF_TOO_DEMANDING'],
    sentence: /stopped/,
    mayPass: true,
  },
];

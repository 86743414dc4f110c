import { PDFiumLibrary } from '@hyzyla/pdfium';
import type { PlainReader } from '@/core/age/random-access';
import { fromUtf8 } from '@/core/base/bytes';

/** The functions of PDFium this product calls, as WebAssembly exports them: pointers and numbers. */
type Native = Record<
  | 'malloc'
  | 'free'
  | 'FPDF_LoadDocument'
  | 'FPDF_CloseDocument'
  | 'FPDF_GetLastError'
  | 'FPDF_GetPageCount'
  | 'FPDF_GetMetaText'
  | 'FPDF_LoadPage'
  | 'FPDF_ClosePage'
  | 'FPDF_GetPageWidthF'
  | 'FPDF_GetPageHeightF'
  | 'FPDFBitmap_CreateEx'
  | 'FPDFBitmap_FillRect'
  | 'FPDFBitmap_Destroy'
  | 'FPDF_RenderPageBitmap'
  | 'FPDFText_LoadPage'
  | 'FPDFText_ClosePage'
  | 'FPDFText_CountRects'
  | 'FPDFText_GetRect'
  | 'FPDFText_GetBoundedText'
  | 'FPDFText_FindStart'
  | 'FPDFText_FindNext'
  | 'FPDFText_FindClose'
  | 'FPDFText_GetSchResultIndex'
  | 'FPDFText_GetSchCount'
  | 'FPDFBookmark_GetFirstChild'
  | 'FPDFBookmark_GetNextSibling'
  | 'FPDFBookmark_GetTitle'
  | 'FPDFBookmark_GetDest'
  | 'FPDFBookmark_GetAction'
  | 'FPDFAction_GetDest'
  | 'FPDFDest_GetDestPageIndex',
  (...args: number[]) => number
> & { readonly memory: WebAssembly.Memory };

export type Pdfium = {
  readonly native: Native;
  /** Offers a document under a path that `FPDF_LoadDocument` can open, read on demand. */
  readonly mount: (reader: PlainReader) => { readonly path: string; readonly unmount: () => void };
};

/** WebAssembly memory a document may take; a stream that inflates without end stops here. */
const MAX_MEMORY = 640 * 1024 * 1024;
const FIRST_DESCRIPTOR = 1000;
const REGULAR_FILE = 0o100444;
const NO_ENTRY = 44; // WASI errno values
const NOT_SUPPORTED = 58;

type Import = (...args: never[]) => unknown;
type Imports = Record<string, Record<string, Import>>;

type OpenFile = { readonly reader: PlainReader; position: number };

/**
 * Loads PDFium and serves its file system calls from our readers.
 *
 * The packaged wrapper copies a whole file into memory. PDFium itself reads where it needs to, so
 * its few system calls are answered here and only those chunks are decrypted that a page touches.
 *
 * @param compiled the package's `pdfium.wasm`: threads of one process may share what was compiled of it
 */
export async function loadPdfium(compiled: WebAssembly.Module): Promise<Pdfium> {
  const mounted = new Map<string, PlainReader>();
  const open = new Map<number, OpenFile>();
  const files = { mounted, open, nextDescriptor: FIRST_DESCRIPTOR };
  let exports: Native | undefined;

  await PDFiumLibrary.init({
    instantiateWasm: (imports, done) => {
      const served = serveFiles(imports as Imports, files, () => need(exports).memory);
      void WebAssembly.instantiate(compiled, served as unknown as WebAssembly.Imports).then(
        (instance) => {
          exports = instance.exports as unknown as Native;
          (done as unknown as (instance: WebAssembly.Instance, module: WebAssembly.Module) => void)(
            instance,
            compiled,
          );
        },
      );
      return {};
    },
  });

  let nextName = 0;
  return {
    native: need(exports),
    mount: (reader) => {
      const path = `/document/${String(nextName++)}`;
      mounted.set(path, reader);
      return {
        path,
        unmount: () => {
          mounted.delete(path);
        },
      };
    },
  };
}

function need<T>(value: T | undefined): T {
  if (value === undefined) throw new Error('PDFium has not been instantiated.');
  return value;
}

function readText(memory: WebAssembly.Memory, pointer: number): string {
  const bytes = new Uint8Array(memory.buffer);
  return fromUtf8(bytes.slice(pointer, bytes.indexOf(0, pointer)));
}

/** The imports with the file calls for our own files answered here and all others passed on. */
function serveFiles(
  imports: Imports,
  files: { mounted: Map<string, PlainReader>; open: Map<number, OpenFile>; nextDescriptor: number },
  memory: () => WebAssembly.Memory,
): Imports {
  const env = { ...imports['env'] };
  const wasi = { ...imports['wasi_snapshot_preview1'] };
  const view = (): DataView => new DataView(memory().buffer);

  env['__syscall_openat'] = (_directory: number, pathPointer: number) => {
    const reader = files.mounted.get(readText(memory(), pathPointer));
    if (reader === undefined) return -NO_ENTRY;
    const descriptor = files.nextDescriptor++;
    files.open.set(descriptor, { reader, position: 0 });
    return descriptor;
  };
  env['__syscall_fcntl64'] = () => 0;
  env['__syscall_ioctl'] = () => -NOT_SUPPORTED;
  env['__syscall_fstat64'] = (descriptor: number, pointer: number) => {
    const file = files.open.get(descriptor);
    if (file === undefined) return -NO_ENTRY;
    // The layout of musl's struct stat on wasm32: mode at 4, size at 24, block size at 32.
    new Uint8Array(memory().buffer, pointer, 96).fill(0);
    view().setInt32(pointer + 4, REGULAR_FILE, true);
    view().setBigInt64(pointer + 24, BigInt(file.reader.size), true);
    view().setInt32(pointer + 32, 4096, true);
    return 0;
  };
  env['emscripten_resize_tally'] = ((passOn) => (size: number) =>
    size >>> 0 > MAX_MEMORY ? 0 : passOn?.(size as never))(env['emscripten_resize_tally']);
  wasi['fd_seek'] = (descriptor: number, offset: bigint, whence: number, result: number) => {
    const file = files.open.get(descriptor);
    if (file === undefined) return NO_ENTRY;
    const base = whence === 0 ? 0 : whence === 1 ? file.position : file.reader.size;
    file.position = base + Number(offset);
    view().setBigInt64(result, BigInt(file.position), true);
    return 0;
  };
  wasi['fd_read'] = (descriptor: number, vectors: number, count: number, result: number) => {
    const file = files.open.get(descriptor);
    if (file === undefined) return NO_ENTRY;
    let total = 0;
    for (let i = 0; i < count; i++) {
      const pointer = view().getUint32(vectors + i * 8, true);
      const bytes = file.reader.read(file.position, view().getUint32(vectors + i * 8 + 4, true));
      new Uint8Array(memory().buffer).set(bytes, pointer);
      file.position += bytes.length;
      total += bytes.length;
    }
    view().setUint32(result, total, true);
    return 0;
  };
  wasi['fd_close'] = (descriptor: number) => (files.open.delete(descriptor) ? 0 : NO_ENTRY);
  return { ...imports, env, wasi_snapshot_preview1: wasi };
}

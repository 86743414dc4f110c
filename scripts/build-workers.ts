import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { createHash } from 'node:crypto';
import path from 'node:path';
import { build, context, type BuildOptions } from 'esbuild';

/**
 * Bundles the server's worker threads into `build/workers/`, since a worker starts from a file of
 * its own, whatever the rest of the product was bundled with. Packages are bundled with them, which
 * loads in a third of the time, save for those that bring files of their own.
 */
const WORKERS: BuildOptions = {
  outdir: 'build/workers',
  outExtension: { '.js': '.mjs' },
  bundle: true,
  // What a thread needs for few of its tasks is loaded with the first of them.
  splitting: true,
  platform: 'node',
  format: 'esm',
  target: 'node20',
  conditions: ['react-server'],
  // A marker for the framework's bundler, which would refuse to load outside it.
  alias: { 'server-only': path.resolve('node_modules/server-only/empty.js') },
  logLevel: 'warning',
  entryPoints: {
    'render-worker': 'src/workers/render-worker.ts',
    'sealing-worker': 'src/workers/sealing-worker.ts',
    'export-worker': 'src/workers/export-worker.ts',
    'check-worker': 'src/workers/check-worker.ts',
    'verify-worker': 'src/workers/verify-worker.ts',
    'prove-worker': 'src/workers/prove-worker.ts',
  },
  external: [
    '@libsql/client',
    'libsql',
    'sharp',
    '@hyzyla/pdfium',
    'piscina',
    'sodium-native',
    '@cantoo/fontkit',
    'wawoff2',
    'subset-font',
    'pdfmake',
    'exceljs',
    'mammoth',
    'jszip',
  ],
};

const IN_BROWSER: BuildOptions = {
  bundle: true,
  minify: true,
  platform: 'browser',
  format: 'esm',
  target: 'es2023',
  logLevel: 'warning',
  write: false,
};
/**
 * What runs in the browser apart from the framework's pages, served as it is: the worker that reads
 * files there, with the WebAssembly it needs beside it, and the reader without a connection.
 */
const OWN_MACHINE: BuildOptions = {
  ...IN_BROWSER,
  outdir: 'public',
  entryPoints: {
    'reader/own-machine': 'src/workers/own-machine-worker.ts',
    'sender/seal': 'src/workers/seal-worker.ts',
    'reader/offline': 'src/ui/offline/main.tsx',
  },
  jsx: 'automatic',
  define: { 'process.env.NODE_ENV': '"production"' },
  loader: { '.woff2': 'file' },
  assetNames: 'reader/[name]-[hash]',
};
const PDFIUM = 'node_modules/@hyzyla/pdfium/dist/pdfium.wasm';

function writeChanged(file: string, contents: Uint8Array): void {
  if (existsSync(file) && readFileSync(file).equals(contents)) return;
  mkdirSync(path.dirname(file), { recursive: true });
  const whole = `${file}.new`;
  writeFileSync(whole, contents);
  renameSync(whole, file);
}

/** Leaves files that would not change as they are, since a server may be starting from them. */
export async function buildWorkers(): Promise<void> {
  const { outputFiles } = await build({ ...WORKERS, write: false });
  for (const { path: file, contents } of outputFiles) writeChanged(file, contents);
  await buildOwnMachine();
}

/** The files of the browser, and the service worker that knows each of them. */
async function buildOwnMachine(): Promise<void> {
  const { outputFiles = [] } = await build(OWN_MACHINE);
  const files = new Map<string, Uint8Array>(
    outputFiles.map(({ path: file, contents }) => [path.relative('public', file), contents]),
  );
  files.set('reader/pdfium.wasm', readFileSync(PDFIUM));
  files.set('reader/offline.html', readFileSync('src/ui/offline/offline.html'));
  const hash = createHash('sha256');
  for (const [name, contents] of files) hash.update(name).update(contents);
  const { outputFiles: worker = [] } = await build({
    ...IN_BROWSER,
    entryPoints: { 'reader-worker': 'src/workers/reader-service-worker.ts' },
    outdir: 'public',
    format: 'iife',
    define: {
      READER_FILES: JSON.stringify(
        [...files.keys()].filter((name) => name.startsWith('reader/')).map((name) => `/${name}`),
      ),
      READER_VERSION: JSON.stringify(hash.digest('hex').slice(0, 16)),
    },
  });
  for (const [name, contents] of files) writeChanged(path.join('public', name), contents);
  for (const { path: file, contents } of worker) writeChanged(file, contents);
}

/** The same, and again whenever a source changes; a thread that runs goes on as it was. */
export async function watchWorkers(): Promise<void> {
  await (await context(WORKERS)).watch();
}

import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
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
  platform: 'node',
  format: 'esm',
  target: 'node20',
  conditions: ['react-server'],
  // A marker for the framework's bundler, which would refuse to load outside it.
  alias: { 'server-only': path.resolve('node_modules/server-only/empty.js') },
  logLevel: 'warning',
  entryPoints: {
    'render-worker': 'src/workers/render-worker.ts',
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
    '@cantoo/fontkit',
    'wawoff2',
    'subset-font',
    'pdfmake',
    'exceljs',
    'mammoth',
    'jszip',
  ],
};

/**
 * What runs in the browser apart from its pages: served as it is, under an address that stays the
 * same, with the WebAssembly it needs beside it.
 */
const BROWSER_WORKERS: BuildOptions = {
  outdir: 'public/workers',
  bundle: true,
  minify: true,
  platform: 'browser',
  format: 'esm',
  target: 'es2023',
  logLevel: 'warning',
  entryPoints: { 'own-machine': 'src/workers/own-machine-worker.ts' },
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
  for (const options of [WORKERS, BROWSER_WORKERS]) {
    const { outputFiles } = await build({ ...options, write: false });
    for (const { path: file, contents } of outputFiles) writeChanged(file, contents);
  }
  writeChanged('public/workers/pdfium.wasm', readFileSync(PDFIUM));
}

/** The same, and again whenever a source changes; a thread that runs goes on as it was. */
export async function watchWorkers(): Promise<void> {
  for (const options of [WORKERS, BROWSER_WORKERS]) await (await context(options)).watch();
}

import path from 'node:path';
import { build } from 'esbuild';

/**
 * Bundles the server's worker threads into `build/workers/`, since a worker starts from a file of
 * its own, whatever the rest of the product was bundled with. Packages stay outside.
 */
export async function buildWorkers(): Promise<void> {
  await build({
    entryPoints: { 'render-worker': 'src/workers/render-worker.ts', 'export-worker': 'src/workers/export-worker.ts' },
    outdir: 'build/workers',
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    conditions: ['react-server'],
    // A marker for the framework's bundler, which would refuse to load outside it.
    alias: { 'server-only': path.resolve('node_modules/server-only/empty.js') },
    logLevel: 'warning',
  });
}

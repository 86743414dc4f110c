import { spawn, type ChildProcess } from 'node:child_process';
import { readFileSync } from 'node:fs';
import path from 'node:path';
import { build } from 'esbuild';

const { dependencies } = JSON.parse(readFileSync('package.json', 'utf8')) as {
  readonly dependencies: Readonly<Record<string, string>>;
};
/** Of this package we take a file of JSON, which has to be bundled. */
const external = Object.keys(dependencies).filter((name) => name !== 'email-providers');
const bundles = new Map<string, Promise<string>>();

/** A script of this folder in one file, which starts in a second. */
function bundled(script: string): Promise<string> {
  const outfile = path.resolve('build/killed', `${path.basename(script, '.ts')}.mjs`);
  const made =
    bundles.get(script) ??
    build({
      entryPoints: [script],
      outfile,
      bundle: true,
      platform: 'node',
      format: 'esm',
      target: 'node20',
      external,
      conditions: ['react-server'],
      alias: { 'server-only': path.resolve('node_modules/server-only/empty.js') },
      logLevel: 'warning',
    }).then(() => outfile);
  bundles.set(script, made);
  return made;
}

async function start(script: string, args: readonly string[]): Promise<ChildProcess> {
  return spawn(process.execPath, [await bundled(script), ...args], {
    stdio: ['ignore', 'pipe', 'inherit'],
    detached: true,
  });
}

/**
 * Runs a script of this folder until it has said `word` and `after` ms more have passed, then kills
 * it with all it started.
 */
export async function runUntilKilled(
  script: string,
  folder: string,
  word: string,
  after: number,
): Promise<string> {
  const child = await start(script, [folder]);
  let said = '';
  let armed = false;
  return new Promise((resolve) => {
    child.stdout?.on('data', (text: Buffer) => {
      said += text.toString();
      // Counted from its first word, so that it is killed at work and not while it starts.
      if (armed || !said.includes(word)) return;
      armed = true;
      setTimeout(() => {
        process.kill(-(child.pid ?? 0), 'SIGKILL');
      }, after);
    });
    child.on('close', () => {
      resolve(said);
    });
  });
}

/** Runs a script of this folder that kills itself. @returns what it said @throws Error where it ended in another way */
export async function runUntilDead(script: string, args: readonly string[]): Promise<string> {
  const child = await start(script, args);
  let said = '';
  return new Promise((resolve, reject) => {
    child.stdout?.on('data', (text: Buffer) => {
      said += text.toString();
    });
    child.on('close', (_code, signal) => {
      if (signal === 'SIGKILL') resolve(said);
      else reject(new Error(`${script} ended by itself: ${said}`));
    });
  });
}

// What has to be there before anything runs. Plain Node.js: it works before packages are installed.
import { execFileSync, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';

const INSTALLED = 'node_modules/.embargo-installed';
const BUILT = 'build/.stamp';
const SOURCES = [
  'src',
  'demo',
  'scripts',
  'server.ts',
  'next.config.mjs',
  'tsconfig.json',
  'package.json',
  'package-lock.json',
];

function filesOf(entry) {
  if (!statSync(entry).isDirectory()) return [entry];
  return readdirSync(entry)
    .sort()
    .flatMap((name) => filesOf(path.join(entry, name)));
}

function digest(entries) {
  const hash = createHash('sha256');
  for (const file of entries.flatMap(filesOf))
    if (!file.endsWith('.test.ts')) hash.update(file).update('\0').update(readFileSync(file));
  return hash.digest('hex');
}

function stampIs(file, text) {
  return existsSync(file) && readFileSync(file, 'utf8') === text;
}

/** Installs the pinned packages, unless they are those of the lock file. */
export function ensureInstalled() {
  const wanted = digest(['package-lock.json']);
  if (stampIs(INSTALLED, wanted)) return;
  console.log('Installing packages…');
  execFileSync('npm', ['ci', '--no-audit', '--no-fund'], { stdio: 'inherit' });
  writeFileSync(INSTALLED, wanted);
}

/** Builds, unless what was built came from these sources. */
export function ensureBuilt() {
  const wanted = digest(SOURCES);
  if (existsSync('.next/BUILD_ID') && stampIs(BUILT, wanted)) return;
  console.log('Building…');
  mkdirSync('build', { recursive: true });
  execFileSync('npx', ['tsx', 'scripts/build.ts'], { stdio: 'inherit' });
  writeFileSync(BUILT, wanted);
}

/** The demo's story as it was told last for an address, untouched. */
export function toldFolder(port) {
  return `build/demo-data/${port ?? 'usual'}`;
}

/**
 * Tells the demo's story, unless it was told today, by what is built now and for this address.
 *
 * @returns whether it was told anew
 */
export function ensureTold() {
  const told = toldFolder(process.env.PORT);
  const wanted = [
    readFileSync(BUILT, 'utf8'),
    new Date().toISOString().slice(0, 10),
    process.env.PORT,
    process.env.PUBLIC_URL,
  ].join(' ');
  const stamp = path.join(told, '.stamp');
  if (stampIs(stamp, wanted)) return false;
  rmSync(told, { recursive: true, force: true });
  console.log('Making demo data…');
  execFileSync('npx', ['tsx', '--conditions=react-server', 'demo/make-demo.ts'], {
    stdio: 'inherit',
    env: { ...process.env, DATA_DIR: told },
  });
  writeFileSync(stamp, wanted);
  return true;
}

/** The browser without its own windows draws a page in half the time of the whole one. */
const DEBIAN_TOOLS = {
  'chromium-headless-shell': 'chromium-headless-shell',
  age: 'age',
  qpdf: 'qpdf',
  pdfdetach: 'poppler-utils',
};

function isThere(command) {
  return spawnSync('sh', ['-c', `command -v ${command}`]).status === 0;
}

/** Runs a step of a script; where it does not end well, neither does the script. */
export function run(command, args, env = process.env) {
  const { status, error } = spawnSync(command, args, { stdio: 'inherit', env });
  if (error === undefined && status === 0) return;
  console.error(`${command} did not end well${error === undefined ? '' : `: ${error.message}`}.`);
  process.exit(1);
}

/** Installs Debian's packages where a command of theirs is missing, or says which. */
export function ensurePackages(command, packages) {
  if (isThere(command)) return;
  if (process.getuid?.() !== 0) {
    console.error(`${command} is not here. As root: apt install ${packages.join(' ')}`);
    process.exit(1);
  }
  run('apt-get', ['install', '--yes', '--no-install-recommends', ...packages]);
}

/** Installs the Debian programs that tests use, where that is possible, or says which are missing. */
export function ensureTestTools() {
  const missing = Object.entries(DEBIAN_TOOLS)
    .filter(([command]) => !isThere(command))
    .map(([, name]) => name);
  if (missing.length === 0) return;
  const command = `apt-get update && apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (!isThere('apt-get') || process.getuid?.() !== 0)
    throw new Error(
      `The tests need these programs: ${missing.join(', ')}. Install them first, on Debian as root with:\n  ${command}`,
    );
  console.log(`Installing ${missing.join(', ')} from Debian's packages…`);
  execFileSync('sh', ['-c', command], {
    stdio: 'inherit',
    env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
  });
}

/** PDFs that nobody here made, as Debian ships them: one long, two full of pictures. */
const REAL_DOCUMENTS = {
  'gnuplot-doc': ['usr/share/doc/gnuplot/gnuplot.pdf'],
  'paperwork-gtk': [
    'usr/share/doc/paperwork-gtk/intro.pdf',
    'usr/share/doc/paperwork-gtk/usage.pdf',
  ],
};
const DOCUMENTS = 'build/real-documents';

/** Takes those documents out of Debian's packages; nothing is installed for them. */
export function ensureRealDocuments() {
  const files = Object.values(REAL_DOCUMENTS).flat();
  if (files.every((file) => existsSync(path.join(DOCUMENTS, path.basename(file))))) return;
  if (!isThere('apt-get'))
    throw new Error(
      `The tests need ${files.map((file) => path.basename(file)).join(', ')} from Debian's packages ` +
        `${Object.keys(REAL_DOCUMENTS).join(', ')} in ${DOCUMENTS}.`,
    );
  console.log("Fetching documents from Debian's packages…");
  const folder = mkdtempSync(path.join(tmpdir(), 'embargo-debian-'));
  const run = (command, ...args) =>
    execFileSync(command, args, { cwd: folder, stdio: ['ignore', 'ignore', 'inherit'] });
  if (spawnSync('apt-cache', ['show', 'gnuplot-doc']).status !== 0) run('apt-get', 'update');
  run('apt-get', 'download', ...Object.keys(REAL_DOCUMENTS));
  for (const name of readdirSync(folder)) run('dpkg-deb', '-x', name, 'out');
  mkdirSync(DOCUMENTS, { recursive: true });
  for (const file of files)
    copyFileSync(path.join(folder, 'out', file), path.join(DOCUMENTS, path.basename(file)));
  rmSync(folder, { recursive: true });
}

/**
 * How the server is started. The C library else keeps memory for each thread that draws, and never
 * gives back what large pictures took.
 */
export const SERVER = {
  flags: ['--max-semi-space-size=32'],
  environment: {
    MALLOC_ARENA_MAX: '2',
    MALLOC_MMAP_THRESHOLD_: '262144',
    MALLOC_TRIM_THRESHOLD_: '262144',
  },
};

/** Times that a server which the database's driver ended is started again. */
const RESTARTS = 5;

/**
 * Runs the built server with these settings until it ends. A harmed text in the database makes its
 * driver end the process: it is then started again, and looks through the whole database before it
 * serves.
 */
export function serve(environment) {
  let { status, signal } = run({});
  for (let restarts = 0; signal === 'SIGABRT' && restarts < RESTARTS; restarts++)
    ({ status, signal } = run({ CHECK_FIRST: '1' }));
  process.exit(status ?? (signal === 'SIGABRT' ? 1 : 0));

  function run(more) {
    const env = {
      ...process.env,
      NODE_ENV: 'production',
      NEXT_TELEMETRY_DISABLED: '1',
      ...SERVER.environment,
      ...environment,
      ...more,
    };
    return spawnSync(process.execPath, [...SERVER.flags, 'build/server.mjs'], {
      stdio: 'inherit',
      env,
    });
  }
}

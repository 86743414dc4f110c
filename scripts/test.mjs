// `npm test`: lint, types, unit, property and integration tests, build, end-to-end tests.
import { spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, statfsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { DEMO_ADDRESSES } from './demo-address.mjs';
import { ensureInstalled, ensureRealDocuments, ensureTestTools } from './prepare.mjs';

ensureTestTools();
ensureRealDocuments();
ensureInstalled();

/** Where there is memory for what tests store for a moment, a disk's syncs need not be waited for. */
const MEMORY = '/dev/shm';
const MEMORY_NEEDED = 4 << 30;

function roomInMemory() {
  if (!existsSync(MEMORY)) return false;
  const { bavail, bsize } = statfsSync(MEMORY);
  return bavail * bsize >= MEMORY_NEEDED;
}

const scratch = mkdtempSync(path.join(roomInMemory() ? MEMORY : tmpdir(), 'embargo-tests-'));
process.on('exit', () => {
  rmSync(scratch, { recursive: true, force: true });
});
const unitReport = path.join(scratch, 'unit.json');
const browserReport = path.join(scratch, 'browser.json');
const failedSteps = [];

/** Runs beside others; what it printed is shown when it is done, so that nothing is mixed up. */
function step(name, command, args, environment = {}) {
  const began = performance.now();
  return new Promise((resolve) => {
    const printed = [];
    const child = spawn(command, args, {
      env: {
        ...process.env,
        NEXT_TELEMETRY_DISABLED: '1',
        FORCE_COLOR: '0',
        TMPDIR: scratch,
        ...environment,
      },
    });
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (bytes) => printed.push(bytes));
    child.on('close', (status) => {
      const took = Math.round((performance.now() - began) / 1_000);
      console.log(`\n== ${name}, ${took} s${status === 0 ? '' : ': failed'}`);
      process.stdout.write(Buffer.concat(printed));
      if (status !== 0) failedSteps.push(name);
      resolve(status === 0);
    });
  });
}

function read(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
}

const FIRST_LINES = 12;

function told(where, title, message) {
  const lines = String(message ?? '')
    .split('\n')
    .slice(0, FIRST_LINES);
  return [`${where}: ${title}`, ...lines].join('\n   ');
}

/** What failed, once more at the end: a long output is often kept only by its last lines. */
function unitFailures(report) {
  return (report?.testResults ?? []).flatMap((file) =>
    file.assertionResults
      .filter((test) => test.status === 'failed')
      .map((test) => told(path.relative('.', file.name), test.fullName, test.failureMessages[0])),
  );
}

function browserFailures(suites) {
  return suites.flatMap((suite) => [
    ...(suite.specs ?? [])
      .filter((spec) => !spec.ok)
      .map((spec) => {
        const results = spec.tests.flatMap((test) => test.results);
        return told(spec.file, spec.title, results.find((result) => result.error)?.error.message);
      }),
    ...browserFailures(suite.suites ?? []),
  ]);
}

function prepare(name, what, environment = {}) {
  return step(
    name,
    process.execPath,
    [
      '--input-type=module',
      '--eval',
      `import { ${what} } from './scripts/prepare.mjs'; ${what}();`,
    ],
    environment,
  );
}

const CHECKS = [
  ['Lint and types', 'oxlint'],
  ['Format', 'prettier', '--check', '--log-level', 'warn', '.'],
  [
    'Import directions',
    'depcruise',
    'src',
    '--config',
    '.dependency-cruiser.cjs',
    '--output-type',
    'err',
  ],
  ['Unused code', 'knip', '--no-progress'],
];

/** Each keeps one core busy: as many at a time as there are cores to count on. */
async function twoAtATime(steps) {
  const left = [...steps];
  const told = [];
  const lane = async () => {
    for (let next = left.shift(); next !== undefined; next = left.shift()) told.push(await next());
  };
  await Promise.all([lane(), lane()]);
  return told;
}

// The build writes types that others need, and takes several times as long where it has not both cores.
const built = await prepare('Build', 'ensureBuilt');
const checks = [
  built,
  ...(await twoAtATime([
    ...DEMO_ADDRESSES.map(
      (address) => () => prepare(`Demo data for ${address.PUBLIC_URL}`, 'ensureTold', address),
    ),
    ...CHECKS.map(
      ([name, ...command]) =>
        () =>
          step(name, 'npx', command),
    ),
  ])),
];
// One after the other: each keeps both cores busy, and beside one another they only wait for one another.
await step('End-to-end tests', 'npx', ['playwright', 'test', '--reporter=list,json'], {
  PLAYWRIGHT_JSON_OUTPUT_NAME: browserReport,
});
await step('Unit, property and integration tests', 'npx', [
  'vitest',
  'run',
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${unitReport}`,
]);

const unit = read(unitReport);
const browserRun = read(browserReport);
const browser = browserRun?.stats;
// A report that is missing counts as a failure: nothing may pass for want of having run.
const passed =
  checks.filter(Boolean).length + (unit?.numPassedTests ?? 0) + (browser?.expected ?? 0);
const broken =
  checks.filter((ok) => !ok).length +
  (unit === null ? 1 : unit.numFailedTests) +
  (browser === undefined ? 1 : browser.unexpected + browser.flaky);
for (const line of [...unitFailures(unit), ...browserFailures(browserRun?.suites ?? [])])
  console.log(`\n-- ${line}`);
if (failedSteps.length > 0) console.log(`\n-- Not passed: ${failedSteps.join(', ')}`);
console.log(`\n${passed} passed, ${Math.max(broken, failedSteps.length > 0 ? 1 : 0)} failed`);
process.exit(failedSteps.length === 0 && broken === 0 ? 0 : 1);

// `npm test`: lint, types, unit, property and integration tests, build, end-to-end tests.
import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { DEMO_ADDRESS } from './demo-address.mjs';
import { ensureInstalled, ensureRealDocuments, ensureTestTools } from './prepare.mjs';

ensureTestTools();
ensureRealDocuments();
ensureInstalled();

const reports = mkdtempSync(path.join(tmpdir(), 'embargo-tests-'));
const unitReport = path.join(reports, 'unit.json');
const browserReport = path.join(reports, 'browser.json');
let failed = 0;

function step(name, command, args, environment = {}) {
  console.log(`\n== ${name}`);
  const { status } = spawnSync(command, args, {
    stdio: 'inherit',
    env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', ...environment },
  });
  if (status !== 0) failed++;
  return status === 0;
}

/** Runs beside others; what it printed is shown when it is done, so that nothing is mixed up. */
function stepBeside(name, command, args, environment = {}) {
  return new Promise((resolve) => {
    const printed = [];
    const child = spawn(command, args, {
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', FORCE_COLOR: '0', ...environment },
    });
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (bytes) => printed.push(bytes));
    child.on('close', (status) => {
      console.log(`\n== ${name}${status === 0 ? '' : ': failed'}`);
      process.stdout.write(Buffer.concat(printed));
      if (status !== 0) failed++;
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

function prepareBeside(name, what, environment = {}) {
  return stepBeside(
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

/** The build writes types of its own, which the check of types needs; the demo is what browsers are shown. */
async function prepareAndCheck() {
  return [
    await prepareBeside('Build', 'ensureBuilt'),
    await prepareBeside('Demo data', 'ensureTold', DEMO_ADDRESS),
    await stepBeside('Types', 'npx', ['tsc', '--noEmit']),
    ...(await imports()),
  ];
}

async function imports() {
  return [
    await stepBeside('Import directions', 'npx', [
      'depcruise',
      'src',
      '--config',
      '.dependency-cruiser.cjs',
      '--output-type',
      'err',
    ]),
    await stepBeside('Unused code', 'npx', ['knip', '--no-progress']),
  ];
}

async function lint() {
  return [
    await stepBeside('Format', 'npx', ['prettier', '--check', '--log-level', 'warn', '.']),
    await stepBeside('Lint', 'npx', ['eslint', '.']),
  ];
}

// The build keeps one core busy and lint the other.
const checks = (await Promise.all([prepareAndCheck(), lint()])).flat();
step('Unit, property and integration tests', 'npx', [
  'vitest',
  'run',
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${unitReport}`,
]);
step('End-to-end tests', 'npx', ['playwright', 'test', '--reporter=list,json'], {
  PLAYWRIGHT_JSON_OUTPUT_NAME: browserReport,
});

const unit = read(unitReport);
const browser = read(browserReport)?.stats;
// A report that is missing counts as a failure: nothing may pass for want of having run.
const passed =
  checks.filter(Boolean).length + (unit?.numPassedTests ?? 0) + (browser?.expected ?? 0);
const broken =
  checks.filter((ok) => !ok).length +
  (unit === null ? 1 : unit.numFailedTests) +
  (browser === undefined ? 1 : browser.unexpected + browser.flaky);
rmSync(reports, { recursive: true, force: true });
console.log(`\n${passed} passed, ${Math.max(broken, failed > 0 && broken === 0 ? 1 : 0)} failed`);
process.exit(failed === 0 && broken === 0 ? 0 : 1);

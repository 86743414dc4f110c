// An architecture lint must itself be tested: one violating file for each rule, each of which must be reported.
import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';

/** What the linters read, beside the sources. */
const CONFIGURATION = [
  '.dependency-cruiser.cjs',
  'eslint.config.js',
  'eslint.rules.js',
  'next-env.d.ts',
  'package.json',
  'tsconfig.json',
];

/** A copy of the sources: others may be reading the real ones while violations stand in it. */
const copy = mkdtempSync(path.join(tmpdir(), 'embargo-lint-'));

function write(files: readonly (readonly [rule: string, file: string, code: string])[]): void {
  for (const [, file, code] of files) {
    mkdirSync(path.dirname(path.join(copy, file)), { recursive: true });
    writeFileSync(path.join(copy, file), code);
  }
}

const violations: readonly (readonly [rule: string, file: string, code: string])[] = [
  [
    'no-restricted-imports',
    'src/core/policy/violation-core-db.ts',
    "import { grants } from '@/server/db/schema/access';\nexport const a = grants;\n",
  ],
  [
    'boundaries/dependencies',
    'src/core/policy/violation-core-server.ts',
    "import { grants } from '@/server/db/schema/access';\nexport const a = grants;\n",
  ],
  [
    'no-restricted-imports',
    'src/core/policy/violation-core-node.ts',
    "import { readFileSync } from 'node:fs';\nexport const b = readFileSync('x');\n",
  ],
  [
    'no-restricted-imports',
    'src/core/policy/violation-core-drizzle.ts',
    "import { sql } from 'drizzle-orm';\nexport const c = sql`1`;\n",
  ],
  [
    'no-restricted-properties',
    'src/core/policy/violation-core-clock.ts',
    'export const d = Date.now();\n',
  ],
  [
    'no-restricted-properties',
    'src/core/policy/violation-core-random.ts',
    'export const e = Math.random();\n',
  ],
  [
    'no-restricted-syntax',
    'src/core/policy/violation-core-date.ts',
    'export const f = new Date();\n',
  ],
  [
    'no-restricted-globals',
    'src/core/policy/violation-core-process.ts',
    'export const g = process.pid;\n',
  ],
  [
    'boundaries/dependencies',
    'src/ui/reader/violation-ui-server.ts',
    "import { openDocument } from '@/server/services/reading/open-document';\nexport const h = openDocument;\n",
  ],
  [
    'boundaries/dependencies',
    'src/ui/reader/violation-ui-relative.ts',
    "import { grants } from '../../server/db/schema/access';\nexport const i = grants;\n",
  ],
  [
    'boundaries/dependencies',
    'src/ui/reader/violation-ui-dynamic.ts',
    "export const j = async () => (await import('@/server/services/reading/open-document')).openDocument;\n",
  ],
  [
    'boundaries/dependencies',
    'src/app/api/violation-route-db.ts',
    "import { listDocumentRows } from '@/server/repositories/documents/document-repository';\nexport " +
      'const k = listDocumentRows;\n',
  ],
  [
    'boundaries/dependencies',
    'src/server/services/violation-container.ts',
    "import 'server-only';\nimport { createContainer } from '@/server/container';\nexport const v = createContainer;\n",
  ],
  [
    'no-restricted-syntax',
    'src/app/violation-client.tsx',
    "'use client';\nexport default function Page() { return <p>x</p>; }\n",
  ],
  [
    'no-restricted-syntax',
    'src/app/api/violation-try.ts',
    'export function l(): number {\n  try { return 1; } catch { return 2; }\n}\n',
  ],
  [
    'local/no-junk-drawer',
    'src/server/services/utils.ts',
    "import 'server-only';\nexport const m = 1;\n",
  ],
  [
    'local/no-sentences',
    'src/server/services/violation-words.ts',
    "import 'server-only';\nexport const w = (name: string) => `${name} cannot be opened now`;\n",
  ],
  ['max-len', 'src/core/policy/violation-long.ts', `export const x = '${'long '.repeat(30)}';\n`],
  [
    'complexity',
    'src/core/policy/violation-complex.ts',
    `export const x = (a: number) => ${Array.from({ length: 13 }, (_, n) => `a === ${String(n)}`).join(' || ')};\n`,
  ],
  [
    'local/jsx-depth',
    'src/ui/reader/violation-deep.tsx',
    "'use client';\nexport const Deep = () => (<a><a><a><a><a><a><a>x</a></a></a></a></a></a></a>);\n",
  ],
  [
    'max-lines-per-function',
    'src/ui/reader/violation-component.tsx',
    `'use client';\nexport function Long() {\n${'  void 0;\n'.repeat(151)}  return null;\n}\n`,
  ],
  ['local/server-only-marker', 'src/server/services/violation-marker.ts', 'export const n = 1;\n'],
  [
    'local/one-environment-reader',
    'src/server/services/violation-env.ts',
    "import 'server-only';\nexport const o = process.env['HOME'];\n",
  ],
  [
    'no-restricted-imports',
    'src/server/services/violation-zod.ts',
    "import 'server-only';\nimport { z } from 'zod';\nexport const p = z.string();\n",
  ],
  [
    'no-restricted-syntax',
    'src/contracts/violation-barrel.ts',
    "export * from '@/contracts/document';\n",
  ],
  [
    'drizzle/enforce-delete-with-where',
    'src/server/repositories/violation-delete.ts',
    "import 'server-only';\nimport type { Transaction } from '@/server/db/database';\nimport " +
      "{ grants } from '@/server/db/schema/access';\nexport const q = async (tx: Transaction) => { " +
      'await tx.delete(grants); };\n',
  ],
  [
    'drizzle/enforce-update-with-where',
    'src/server/repositories/violation-update.ts',
    "import 'server-only';\nimport type { Transaction } from '@/server/db/database';\nimport " +
      "{ grants } from '@/server/db/schema/access';\nexport const r = async (tx: Transaction) => { " +
      'await tx.update(grants).set({ untilAt: 0 }); };\n',
  ],
  [
    '@typescript-eslint/no-explicit-any',
    'src/server/services/violation-any.ts',
    "import 'server-only';\nexport const s = (x: any) => x;\n",
  ],
  [
    '@typescript-eslint/no-floating-promises',
    'src/server/services/violation-floating.ts',
    "import 'server-only';\nexport function t(): void { Promise.resolve(1); }\n",
  ],
  ['boundaries/no-unknown-files', 'src/nowhere/violation.ts', 'export const u = 1;\n'],
  [
    'react-hooks/rules-of-hooks',
    'src/ui/reader/violation-hook.tsx',
    "'use client';\nimport { useState } from 'react';\nexport function V({ on }: { readonly " +
      'on: boolean }) {\n  if (on) return null;\n  const [open] = useState(false);\n  return ' +
      '<b>{String(open)}</b>;\n}\n',
  ],
];

const reported = new Map<string, Set<string>>();

beforeAll(() => {
  for (const entry of [...CONFIGURATION, 'src'])
    cpSync(entry, path.join(copy, entry), { recursive: true });
  symlinkSync(path.resolve('node_modules'), path.join(copy, 'node_modules'));
  write(violations);
  // As a process of its own, as `npm run lint` is: it exits with 1, since there is something to report.
  const { stdout } = spawnSync(
    'npx',
    ['eslint', '--format', 'json', ...violations.map(([, file]) => file)],
    { cwd: copy, encoding: 'utf8', maxBuffer: 1 << 26 },
  );
  const results = JSON.parse(stdout.slice(stdout.indexOf('[{'))) as {
    filePath: string;
    messages: { ruleId: string | null; message: string }[];
  }[];
  for (const { filePath, messages } of results)
    reported.set(
      path.relative(copy, filePath),
      new Set(messages.map((message) => message.ruleId ?? message.message)),
    );
}, 120_000);

afterAll(() => {
  rmSync(copy, { recursive: true, force: true });
});

test('every violation was looked at', () => {
  expect(reported.size).toBe(violations.length);
});

test.each(violations)('%s is reported in %s', (rule, file) => {
  expect([...(reported.get(file) ?? [])]).toContain(rule);
});

const imports: readonly (readonly [rule: string, file: string, code: string])[] = [
  [
    'no-circular',
    'src/core/ledger/violation-cycle-a.ts',
    "import { y } from '@/core/ledger/violation-cycle-b';\nexport const x = (): number => y();\n",
  ],
  [
    'no-circular',
    'src/core/ledger/violation-cycle-b.ts',
    "import { x } from '@/core/ledger/violation-cycle-a';\nexport const y = (): number => x();\n",
  ],
  [
    'services-room-policy',
    'src/server/services/policy/violation-room.ts',
    "import { openDocument } from '@/server/services/reading/open-document';\nexport const x = openDocument;\n",
  ],
  [
    'repositories-room-ledger',
    'src/server/repositories/ledger/violation-room.ts',
    "import { grantsOf } from '@/server/repositories/access/grant-reader';\nexport const x = grantsOf;\n",
  ],
  [
    'no-unknown-room',
    'src/server/services/violation-room/x.ts',
    "import { y } from '@/server/services/violation-room/y';\nexport const x = y;\n",
  ],
  ['no-unknown-room', 'src/server/services/violation-room/y.ts', 'export const y = 1;\n'],
  [
    'one-room-writes-grants',
    'src/server/services/people/violation-writer.ts',
    "import { insertGrants } from '@/server/repositories/access/grant-writer';\nexport const x = insertGrants;\n",
  ],
  [
    'screens-apart',
    'src/ui/people/violation-screen.ts',
    "import { TodayView } from '@/ui/today/today-view';\nexport const x = TodayView;\n",
  ],
];

test('imports that go where they must not are reported', () => {
  write(imports);
  const { stdout, status } = spawnSync(
    'npx',
    [
      'depcruise',
      ...imports.map(([, file]) => file),
      '--config',
      '.dependency-cruiser.cjs',
      // A circle of two is as far as any of them reaches.
      '--max-depth',
      '2',
      '--output-type',
      'err',
    ],
    { cwd: copy, encoding: 'utf8' },
  );
  expect(status).not.toBe(0);
  // A circle is reported once, with the other file in it on a line of its own.
  const reportedIn = (rule: string, file: string) =>
    stdout.includes(file) && stdout.includes(`${rule}: `);
  expect(imports.filter(([rule, file]) => !reportedIn(rule, file))).toEqual([]);
}, 120_000);

// An architecture lint must itself be tested: one violating file for each rule, each of which must be reported.
import { spawnSync } from 'node:child_process';
import { mkdirSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { afterAll, beforeAll, expect, onTestFinished, test } from 'vitest';

const violations: readonly (readonly [rule: string, file: string, code: string])[] = [
  [
    'no-restricted-imports',
    'src/core/policy/violation-core-db.ts',
    "import { grants } from '@/server/db/schema';\nexport const a = grants;\n",
  ],
  [
    'boundaries/dependencies',
    'src/core/policy/violation-core-server.ts',
    "import { grants } from '@/server/db/schema';\nexport const a = grants;\n",
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
    "import { grants } from '../../server/db/schema';\nexport const i = grants;\n",
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
      "{ grants } from '@/server/db/schema';\nexport const q = async (tx: Transaction) => { " +
      'await tx.delete(grants); };\n',
  ],
  [
    'drizzle/enforce-update-with-where',
    'src/server/repositories/violation-update.ts',
    "import 'server-only';\nimport type { Transaction } from '@/server/db/database';\nimport " +
      "{ grants } from '@/server/db/schema';\nexport const r = async (tx: Transaction) => { " +
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
  for (const [, file, code] of violations) {
    mkdirSync(path.dirname(file), { recursive: true });
    writeFileSync(file, code);
  }
  // As a process of its own, as `npm run lint` is: it exits with 1, since there is something to report.
  const { stdout } = spawnSync(
    'npx',
    ['eslint', '--format', 'json', ...violations.map(([, file]) => file)],
    { encoding: 'utf8', maxBuffer: 1 << 26 },
  );
  const results = JSON.parse(stdout.slice(stdout.indexOf('[{'))) as {
    filePath: string;
    messages: { ruleId: string | null; message: string }[];
  }[];
  for (const { filePath, messages } of results)
    reported.set(
      path.relative('.', filePath),
      new Set(messages.map((message) => message.ruleId ?? message.message)),
    );
}, 120_000);

afterAll(() => {
  for (const [, file] of violations) rmSync(file, { force: true });
  rmSync('src/nowhere', { recursive: true, force: true });
});

test('every violation was looked at', () => {
  expect(reported.size).toBe(violations.length);
});

test.each(violations)('%s is reported in %s', (rule, file) => {
  expect([...(reported.get(file) ?? [])]).toContain(rule);
});

test('modules that import each other in a circle are reported', () => {
  const circle = (['a', 'b'] as const).map((name) =>
    path.join('src/core/ledger', `violation-cycle-${name}.ts`),
  );
  onTestFinished(() => {
    for (const file of circle) rmSync(file, { force: true });
  });
  writeFileSync(
    circle[0] ?? '',
    "import { y } from '@/core/ledger/violation-cycle-b';\nexport const x = (): number => y();\n",
  );
  writeFileSync(
    circle[1] ?? '',
    "import { x } from '@/core/ledger/violation-cycle-a';\nexport const y = (): number => x();\n",
  );
  const { stdout, status } = spawnSync(
    'npx',
    ['depcruise', 'src/core/ledger', '--config', '.dependency-cruiser.cjs', '--output-type', 'err'],
    { encoding: 'utf8' },
  );
  expect(status).not.toBe(0);
  expect(stdout).toContain('no-circular');
  expect(stdout).toContain('violation-cycle-a');
}, 60_000);

test('what nothing uses is reported', () => {
  // Not under the name of the others: what git ignores is passed over.
  const file = 'src/core/ledger/nothing-uses-this.ts';
  onTestFinished(() => {
    rmSync(file, { force: true });
  });
  writeFileSync(file, 'export const z = 1;\n');
  const { stdout, status } = spawnSync('npx', ['knip', '--no-progress'], { encoding: 'utf8' });
  expect(status).not.toBe(0);
  expect(stdout).toContain(file);
}, 60_000);

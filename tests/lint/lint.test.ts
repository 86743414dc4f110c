// An architecture lint must itself be tested: one violating file for each rule, each of which must be reported.
import { spawnSync } from 'node:child_process';
import { cpSync, mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, expect, test } from 'vitest';

/** What the linters read, beside the sources. */
const CONFIGURATION = [
  '.dependency-cruiser.cjs',
  '.oxlintrc.json',
  'lint.rules.js',
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
    'no-restricted-properties',
    'src/core/policy/violation-core-clock.ts',
    'export const d = Date.now();\n',
  ],
  [
    'no-restricted-properties',
    'src/core/policy/violation-core-random.ts',
    'export const e = Math.random();\n',
  ],
  ['local/no-present', 'src/core/policy/violation-core-date.ts', 'export const f = new Date();\n'],
  [
    'no-restricted-globals',
    'src/core/policy/violation-core-process.ts',
    'export const g = process.pid;\n',
  ],
  [
    'local/no-client-page',
    'src/app/violation-client.tsx',
    "'use client';\nexport default function Page() { return <p>x</p>; }\n",
  ],
  [
    'local/no-try-in-page',
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
  [
    'local/line-length',
    'src/core/policy/violation-long.ts',
    `export const x = '${'long '.repeat(30)}';\n`,
  ],
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
    'local/no-barrels',
    'src/contracts/violation-barrel.ts',
    "export * from '@/contracts/document';\n",
  ],
  [
    'local/where-is-said',
    'src/server/repositories/violation-delete.ts',
    "import 'server-only';\nimport type { Transaction } from '@/server/db/database';\nimport " +
      "{ grants } from '@/server/db/schema/access';\nexport const q = async (tx: Transaction) => { " +
      'await tx.delete(grants); };\n',
  ],
  [
    'local/where-is-said',
    'src/server/repositories/violation-update.ts',
    "import 'server-only';\nimport type { Transaction } from '@/server/db/database';\nimport " +
      "{ grants } from '@/server/db/schema/access';\nexport const r = async (tx: Transaction) => { " +
      'await tx.update(grants).set({ untilAt: 0 }); };\n',
  ],
  [
    'typescript/no-explicit-any',
    'src/server/services/violation-any.ts',
    "import 'server-only';\nexport const s = (x: any) => x;\n",
  ],
  [
    'typescript/no-floating-promises',
    'src/server/services/violation-floating.ts',
    "import 'server-only';\nexport function t(): void { Promise.resolve(1); }\n",
  ],
  [
    'typescript/switch-exhaustiveness-check',
    'src/core/policy/violation-switch.ts',
    "export function u(kind: 'a' | 'b'): number {\n  switch (kind) {\n    case 'a':\n      return 1;\n  }\n" +
      '  return 2;\n}\n',
  ],
  [
    'typescript/TS2322',
    'src/core/policy/violation-type.ts',
    "export const v: number = 'a text';\n",
  ],
  [
    'typescript/no-unsafe-return',
    'src/core/policy/violation-unsafe.ts',
    'export function v(text: string): number {\n  return JSON.parse(text);\n}\n',
  ],
  [
    'typescript/no-unnecessary-condition',
    'src/core/policy/violation-condition.ts',
    "export const w = (text: string): string => (text === null ? 'a' : 'b');\n",
  ],
  ['local/no-enums', 'src/core/policy/violation-enum.ts', 'export enum Kind {\n  one,\n}\n'],
  [
    'react/rules-of-hooks',
    'src/ui/reader/violation-hook.tsx',
    "'use client';\nimport { useState } from 'react';\nexport function V({ on }: { readonly " +
      'on: boolean }) {\n  if (on) return null;\n  const [open] = useState(false);\n  return ' +
      '<b>{String(open)}</b>;\n}\n',
  ],
];

const reported = new Map<string, Set<string>>();

/** `typescript(no-explicit-any)`, as the configuration names it: `typescript/no-explicit-any`. */
function ruleOf(code: string): string {
  const [, plugin, rule] = /^(.+)\((.+)\)$/.exec(code) ?? [];
  if (plugin === 'eslint') return String(rule);
  return `${String(plugin).replace('-hooks', '')}/${String(rule)}`;
}

beforeAll(() => {
  for (const entry of [...CONFIGURATION, 'src'])
    cpSync(entry, path.join(copy, entry), { recursive: true });
  symlinkSync(path.resolve('node_modules'), path.join(copy, 'node_modules'));
  write(violations);
  // As a process of its own, as `npm run lint` is: it exits with 1, since there is something to report.
  const { stdout } = spawnSync(
    'npx',
    ['oxlint', '--format', 'json', ...violations.map(([, file]) => file)],
    { cwd: copy, encoding: 'utf8', maxBuffer: 1 << 26 },
  );
  const { diagnostics } = JSON.parse(stdout) as {
    diagnostics: { filename: string; code: string }[];
  };
  for (const { filename, code } of diagnostics)
    reported.set(filename, new Set([...(reported.get(filename) ?? []), ruleOf(code)]));
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
    'layer-core',
    'src/core/policy/violation-core-server.ts',
    "import { grants } from '@/server/db/schema/access';\nexport const a = grants;\n",
  ],
  [
    'core-is-pure',
    'src/core/policy/violation-core-node.ts',
    "import { readFileSync } from 'node:fs';\nexport const b = readFileSync('x');\n",
  ],
  [
    'core-is-pure',
    'src/core/policy/violation-core-drizzle.ts',
    "import { sql } from 'drizzle-orm';\nexport const c = sql`1`;\n",
  ],
  [
    'layer-ui',
    'src/ui/reader/violation-ui-server.ts',
    "import { openDocument } from '@/server/services/reading/open-document';\nexport const h = openDocument;\n",
  ],
  [
    'layer-ui',
    'src/ui/reader/violation-ui-relative.ts',
    "import { grants } from '../../server/db/schema/access';\nexport const i = grants;\n",
  ],
  [
    'layer-ui',
    'src/ui/reader/violation-ui-dynamic.ts',
    "export const j = async () => (await import('@/server/services/reading/open-document')).openDocument;\n",
  ],
  [
    'layer-app',
    'src/app/api/violation-route-db.ts',
    "import { listDocumentRows } from '@/server/repositories/documents/document-repository';\nexport " +
      'const k = listDocumentRows;\n',
  ],
  [
    'layer-services',
    'src/server/services/violation-container.ts',
    "import 'server-only';\nimport { createContainer } from '@/server/container';\nexport const v = createContainer;\n",
  ],
  [
    'no-unknown-place',
    'src/nowhere/violation.ts',
    "import { canonicalJson } from '@/core/ledger/canonical-json';\nexport const u = canonicalJson;\n",
  ],
  [
    'no-unknown-place',
    'src/cli/violation-place.ts',
    "import { u } from '@/nowhere/violation';\nexport const x = u;\n",
  ],
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

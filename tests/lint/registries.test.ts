// Adds one right, condition, action, … to a copy of the sources in memory, and sees that the compiler
// names every place that has to know of it: nothing that is added is forgotten in silence.
import { readFileSync } from 'node:fs';
import path from 'node:path';
import ts from 'typescript';
import { beforeAll, describe, expect, test } from 'vitest';

const root = path.resolve(import.meta.dirname, '../..');

type Addition = {
  /** What is added, as the compiler will name it. */
  readonly name: string;
  readonly file: string;
  readonly before: string;
  readonly after: string;
  /** The files that the compiler then finds wanting: the recipe of CONTRIBUTING.md. */
  readonly wanting: readonly string[];
};

const ADDITIONS: Readonly<Record<string, Addition>> = {
  right: {
    name: 'translate-aloud',
    file: 'src/core/policy/rights.ts',
    before: "'keep', 'pass-on'] as const",
    after: "'keep', 'pass-on', 'translate-aloud'] as const",
    wanting: [
      'src/core/odrl/vocabulary.ts',
      'src/core/policy/right-names.ts',
      'src/ui/why/why-words.ts',
      'src/ui/words/rights-words.ts',
      'src/words/reader/de.ts',
      'src/words/reader/en.ts',
      'src/words/reader/es.ts',
      'src/words/reader/fr.ts',
      'src/words/reader/ja.ts',
      'src/words/reader/verbs-in.ts',
    ],
  },
  condition: {
    name: 'tidesBelow',
    file: 'src/core/policy/conditions.ts',
    before: 'export type Conditions = {',
    after: 'export type Conditions = {\n  readonly tidesBelow?: number | null;',
    wanting: [
      'src/contracts/conditions.ts',
      'src/core/odrl/constraints.ts',
      'src/core/policy/condition-effects.ts',
      'src/core/policy/condition-lines.ts',
      'src/core/policy/impact.ts',
      'src/ui/terms-fields/condition-fields.tsx',
      'src/ui/why/why-words.ts',
    ],
  },
  refusal: {
    name: 'tide-too-high',
    file: 'src/core/policy/decide.ts',
    before: "  | 'not-addressed'",
    after: "  | 'not-addressed'\n  | 'tide-too-high'",
    wanting: [
      'src/core/policy/refusal-names.ts',
      'src/ui/why/why-words.ts',
      'src/words/reader/en.ts',
    ],
  },
  'ledger action': {
    name: 'tide.turned',
    file: 'src/core/ledger/entry.ts',
    before: "  'demo.changed',\n] as const",
    after: "  'demo.changed',\n  'tide.turned',\n] as const",
    wanting: [
      'src/core/insight/did-words.ts',
      'src/core/insight/entry-facts.ts',
      'src/core/insight/kinds.ts',
      'src/core/ledger/action-effects.ts',
    ],
  },
  problem: {
    name: 'tide-came-in',
    file: 'src/contracts/problems.ts',
    before: "  'signed-out': {",
    after: "  'tide-came-in': { kind: 'CONFLICT', to: 'both' },\n  'signed-out': {",
    wanting: ['src/words/recipient-problems/recipient-problems.ts', 'src/words/staff-problems.ts'],
  },
  'kind of file': {
    name: 'image/x-tide-table',
    file: 'src/core/content/media-types.ts',
    before: '  ANY_OTHER,\n] as const',
    after: "  'image/x-tide-table',\n  ANY_OTHER,\n] as const",
    wanting: [
      'src/core/content/media-types.ts',
      'src/server/rendering/keep-file.ts',
      'src/server/rendering/making/make-pages.ts',
    ],
  },
  'form of delivery': {
    name: 'on-paper',
    file: 'src/core/policy/delivery.ts',
    before: "'both', 'unprotected'] as const",
    after: "'both', 'unprotected', 'on-paper'] as const",
    wanting: [
      'src/core/policy/delivery.ts',
      'src/core/policy/rules.ts',
      'src/server/services/access/give-grants.ts',
      'src/ui/words/delivery-words.ts',
    ],
  },
  'way of delivery': {
    name: 'by-pigeon',
    file: 'src/core/policy/delivery.ts',
    before: "['mail', 'by-hand'] as const",
    after: "['mail', 'by-hand', 'by-pigeon'] as const",
    wanting: ['src/server/services/access/give-grants.ts', 'src/ui/words/delivery-words.ts'],
  },
  language: {
    name: 'qya',
    file: 'src/core/base/languages.ts',
    before: "'es', 'ja'] as const",
    after: "'es', 'ja', 'qya'] as const",
    wanting: [
      'src/core/base/moment-in.ts',
      'src/server/mail/moment-words.ts',
      'src/words/mail/mail-words.ts',
      'src/words/reader/reader-catalogues.ts',
      'src/words/recipient-problems/recipient-problems.ts',
    ],
  },
};

/** Where the tables stand; the rest of the sources takes a minute to check and has none. */
const TABLES = new RegExp(
  [
    '/src/(core|words|contracts/(conditions|problems)|server/(rendering|mail/moment-words|services/access/give-grants)',
    'ui/(words|why/why-words|terms-fields/condition-fields))',
  ].join('|'),
);

/** Every error of the compiler in the sources with all additions made, as file and text. */
function errorsWithAdditions(): { readonly file: string; readonly text: string }[] {
  const changed = new Map<string, string>();
  for (const { file, before, after } of Object.values(ADDITIONS)) {
    const whole = path.join(root, file);
    const text = changed.get(whole) ?? readFileSync(whole, 'utf8');
    if (!text.includes(before)) throw new Error(`${file} no longer has: ${before}`);
    changed.set(whole, text.replace(before, after));
  }
  const read = (name: string): string | undefined => ts.sys.readFile(name);
  const { config } = ts.readConfigFile(path.join(root, 'tsconfig.json'), read) as {
    config: unknown;
  };
  const { options, fileNames } = ts.parseJsonConfigFileContent(config, ts.sys, root);
  const host = ts.createCompilerHost({ ...options, noEmit: true, incremental: false });
  const readFile = host.readFile.bind(host);
  host.readFile = (name) => changed.get(path.resolve(name)) ?? readFile(name);
  const sources = fileNames.filter((name) => TABLES.test(name) && !/\.test\.tsx?$/.test(name));
  const program = ts.createProgram(sources, { ...options, noEmit: true, incremental: false }, host);
  const found = sources.flatMap((name) =>
    program.getSemanticDiagnostics(program.getSourceFile(name)),
  );
  return found.map(({ file, messageText }) => ({
    file: path.relative(root, file?.fileName ?? ''),
    text: ts.flattenDiagnosticMessageText(messageText, '\n'),
  }));
}

describe('what is added is asked for wherever it has to be known', () => {
  let errors: ReturnType<typeof errorsWithAdditions> = [];
  beforeAll(() => {
    errors = errorsWithAdditions();
  }, 180_000);

  test.each(Object.entries(ADDITIONS))('a %s', (_what, { name, wanting }) => {
    const files = errors.filter(({ text }) => text.includes(name)).map(({ file }) => file);
    expect([...new Set(files)].sort()).toEqual(wanting);
  });
});

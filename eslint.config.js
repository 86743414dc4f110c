import boundaries from 'eslint-plugin-boundaries';
import next from '@next/eslint-plugin-next';
import reactHooks from 'eslint-plugin-react-hooks';
import drizzle from 'eslint-plugin-drizzle';
import vitest from '@vitest/eslint-plugin';
import tseslint from 'typescript-eslint';
import { local } from './eslint.rules.js';

const element = (type) => ({ element: { type } });
const anyOf = (...types) => ({ element: { types: { anyOf: types } } });
const file = (category) => ({ file: { categories: category } });
/** The folders of src/server that are ports with their adapters. */
const PORTS = [
  'clock',
  'config',
  'front',
  'health',
  'identity',
  'limits',
  'live',
  'mail',
  'places',
  'directory',
  'rendering',
  'storage',
  'vault',
  'exporting',
  'verifying',
  'checking',
  'covers',
];
const noBarrels = {
  selector: 'ExportAllDeclaration',
  message: 'No barrels: name what the folder offers.',
};
const zodAtHome = {
  paths: [
    { name: 'zod', message: 'Wire schemas live in src/contracts, stored formats in src/core.' },
  ],
};

export default tseslint.config(
  {
    ignores: [
      '.next/**',
      'build/**',
      'data/**',
      '**/*.mjs',
      'next-env.d.ts',
      'eslint.config.js',
      'eslint.rules.js',
      '.dependency-cruiser.cjs',
      'test-results/**',
      'playwright-report/**',
    ],
  },
  {
    files: ['**/*.{ts,tsx}'],
    extends: [...tseslint.configs.strictTypeChecked, ...tseslint.configs.stylisticTypeChecked],
    languageOptions: {
      parserOptions: { projectService: true, tsconfigRootDir: import.meta.dirname },
    },
    linterOptions: { reportUnusedDisableDirectives: 'error' },
    plugins: { boundaries, local },
    settings: {
      'import/resolver': { typescript: { project: './tsconfig.json' } },
      'boundaries/dependency-nodes': ['import', 'export', 'dynamic-import'],
      'boundaries/include': ['src/**'],
      'boundaries/elements': [
        { type: 'core', pattern: 'src/core/*' },
        { type: 'contracts', pattern: 'src/contracts' },
        { type: 'words', pattern: 'src/words' },
        { type: 'db', pattern: 'src/server/db' },
        { type: 'repositories', pattern: 'src/server/repositories' },
        { type: 'services', pattern: 'src/server/services' },
        { type: 'http', pattern: 'src/server/http' },
        { type: 'port', pattern: `src/server/{${PORTS.join(',')}}` },
        { type: 'app', pattern: 'src/app' },
        { type: 'ui', pattern: 'src/ui/*' },
        { type: 'workers', pattern: 'src/workers' },
        { type: 'cli', pattern: 'src/cli' },
      ],
      'boundaries/files': [
        { category: 'container', pattern: 'src/server/container.ts' },
        { category: 'entry', pattern: 'src/{instrumentation,proxy}.ts' },
      ],
    },
    rules: {
      'boundaries/no-unknown-files': 'error',
      'boundaries/dependencies': [
        'error',
        {
          default: 'disallow',
          policies: [
            { allow: { to: { module: { origin: ['external', 'core'] } } } },
            { from: element('core'), allow: { to: anyOf('core') } },
            { from: element('contracts'), allow: { to: anyOf('core', 'contracts') } },
            { from: element('words'), allow: { to: anyOf('core', 'contracts', 'words') } },
            { from: element('db'), allow: { to: anyOf('core', 'db') } },
            { from: element('port'), allow: { to: anyOf('core', 'port', 'db', 'words') } },
            { from: element('repositories'), allow: { to: anyOf('core', 'db', 'repositories') } },
            {
              from: element('services'),
              allow: { to: anyOf('core', 'contracts', 'repositories', 'port', 'services', 'db') },
            },
            {
              from: file('container'),
              allow: { to: anyOf('core', 'db', 'repositories', 'port', 'services') },
            },
            {
              from: element('http'),
              allow: [
                {
                  to: anyOf(
                    'core',
                    'contracts',
                    'words',
                    'services',
                    'repositories',
                    'port',
                    'http',
                  ),
                },
                { to: file('container') },
              ],
            },
            {
              from: element('app'),
              allow: { to: anyOf('core', 'contracts', 'words', 'services', 'http', 'ui', 'app') },
            },
            { from: element('ui'), allow: { to: anyOf('core', 'contracts', 'words', 'ui') } },
            {
              from: element('workers'),
              allow: {
                to: anyOf('core', 'contracts', 'port', 'workers', 'services', 'repositories', 'db'),
              },
            },
            {
              from: element('cli'),
              allow: [
                {
                  to: anyOf(
                    'core',
                    'contracts',
                    'words',
                    'db',
                    'repositories',
                    'port',
                    'services',
                    'cli',
                  ),
                },
                { to: file('container') },
              ],
            },
            { from: file('entry'), allow: { to: anyOf('http') } },
          ],
        },
      ],
      'local/no-junk-drawer': 'error',
      'max-len': ['error', { code: 120 }],
      complexity: ['error', 12],
      'local/jsx-depth': ['error', 6],
      '@typescript-eslint/switch-exhaustiveness-check': [
        'error',
        { considerDefaultExhaustiveForUnions: true, requireDefaultForNonUnion: true },
      ],
      '@typescript-eslint/consistent-type-imports': 'error',
      '@typescript-eslint/consistent-type-definitions': ['error', 'type'],
      '@typescript-eslint/no-unused-vars': [
        'error',
        { argsIgnorePattern: '^_', varsIgnorePattern: '^_' },
      ],
      '@typescript-eslint/restrict-template-expressions': ['error', { allowNumber: false }],
      '@typescript-eslint/no-confusing-void-expression': ['error', { ignoreArrowShorthand: true }],
      // There are no enums, and few classes, none of which stands in for another: a tenth of lint's time.
      '@typescript-eslint/no-unsafe-enum-assignment': 'off',
      '@typescript-eslint/no-unsafe-class-instance-assignment': 'off',
      '@typescript-eslint/no-misused-promises': [
        'error',
        { checksVoidReturn: { attributes: false } },
      ],
      'no-restricted-syntax': [
        'error',
        noBarrels,
        { selector: 'TSEnumDeclaration', message: 'Use a union of string literals.' },
      ],
      'no-restricted-imports': ['error', zodAtHome],
    },
  },
  {
    files: ['src/**/*.tsx'],
    rules: {
      'max-lines-per-function': ['error', { max: 150, skipComments: true, skipBlankLines: true }],
    },
  },
  // A type of a module is all that these ask for.
  { files: ['tests/types/*.ts'], rules: { '@typescript-eslint/consistent-type-imports': 'off' } },
  {
    files: ['src/**/*.{ts,tsx}'],
    ignores: ['src/server/config/env.ts', 'src/instrumentation.ts', 'src/proxy.ts', '**/*.test.ts'],
    rules: { 'local/one-environment-reader': 'error' },
  },
  {
    files: ['src/contracts/**', 'src/server/config/**', 'src/server/http/**'],
    rules: { 'no-restricted-imports': 'off' },
  },
  {
    files: ['src/core/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: {
      'no-restricted-imports': [
        'error',
        {
          patterns: [
            {
              regex:
                '^(?!@/core/|zod$|jose$|age-encryption$|@noble/|@scure/|@cantoo/|@hyzyla/pdfium$|libsodium-wrappers$|papaparse$|ipaddr.js$|bidi-js$|diff$)',
              message: 'src/core imports only src/core and the allowed pure libraries.',
            },
          ],
        },
      ],
      'no-restricted-globals': [
        'error',
        'globalThis',
        'process',
        'console',
        'fetch',
        'window',
        'document',
        'Buffer',
        'setTimeout',
        'setInterval',
      ],
      'no-restricted-properties': [
        'error',
        { object: 'Date', property: 'now', message: 'Pass `now` in.' },
        { object: 'Math', property: 'random', message: 'Pass a `RandomSource` in.' },
      ],
      'no-restricted-syntax': [
        'error',
        noBarrels,
        {
          selector: 'NewExpression[callee.name="Date"][arguments.length=0]',
          message: 'Pass `now` in.',
        },
      ],
    },
  },
  {
    files: ['src/app/**/*.{ts,tsx}'],
    rules: {
      'no-restricted-syntax': [
        'error',
        {
          selector: 'ExpressionStatement[directive="use client"]',
          message: 'Client components live in src/ui; pages stay on the server.',
        },
        noBarrels,
        { selector: 'TryStatement', message: 'Errors are mapped once, in src/server/http.' },
      ],
    },
  },
  // Next requires the directive in these files.
  { files: ['src/app/**/{error,global-error}.tsx'], rules: { 'no-restricted-syntax': 'off' } },
  {
    files: ['src/server/{repositories,services,http}/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'local/server-only-marker': 'error' },
  },
  {
    files: ['src/server/{repositories,services}/**/*.ts'],
    ignores: ['**/*.test.ts'],
    rules: { 'local/no-sentences': 'error' },
  },
  {
    files: ['src/server/**/*.ts', 'demo/**/*.ts'],
    plugins: { drizzle },
    rules: {
      'drizzle/enforce-delete-with-where': ['error', { drizzleObjectName: ['db', 'tx'] }],
      'drizzle/enforce-update-with-where': ['error', { drizzleObjectName: ['db', 'tx'] }],
    },
  },
  {
    files: ['src/{app,ui}/**/*.{ts,tsx}'],
    plugins: { '@next/next': next, 'react-hooks': reactHooks },
    rules: {
      ...next.configs.recommended.rules,
      ...next.configs['core-web-vitals'].rules,
      ...reactHooks.configs.recommended.rules,
      '@next/next/no-img-element': 'off',
    },
  },
  {
    files: ['src/**/*.test.ts', 'tests/integration/**/*.ts', 'tests/lint/**/*.ts'],
    plugins: { vitest },
    rules: {
      ...vitest.configs.recommended.rules,
      'vitest/expect-expect': ['error', { assertFunctionNames: ['expect', 'expect*'] }],
      'vitest/no-standalone-expect': [
        'error',
        { additionalTestBlockFunctions: ['test.prop', 'prop.prop'] },
      ],
      'vitest/valid-title': 'off',
    },
  },
  {
    files: ['**/*.test.ts', 'tests/**', 'bench/**', 'demo/**', 'scripts/**', '*.ts'],
    rules: { 'no-restricted-imports': 'off', 'boundaries/dependencies': 'off' },
  },
);

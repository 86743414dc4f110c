import path from 'node:path';
import { defineConfig } from 'vitest/config';

const resolve = { alias: { '@': path.resolve(import.meta.dirname, 'src') } };

export default defineConfig({
  test: {
    // Left to itself it keeps a core free for a watching developer, and half of a small machine idle.
    maxWorkers: '100%',
    projects: [
      {
        resolve,
        ssr: {
          resolve: {
            conditions: ['react-server', 'node', 'module', 'import'],
            externalConditions: ['react-server', 'node'],
          },
        },
        test: {
          name: 'server',
          include: [
            'src/**/*.test.ts',
            'demo/**/*.test.ts',
            'tests/integration/**/*.test.ts',
            'tests/lint/**/*.test.ts',
          ],
          globalSetup: ['tests/support/build-workers.ts'],
          server: { deps: { inline: ['server-only'] } },
          // What a busy machine does late is not wrong: only what never ends is.
          testTimeout: 60_000,
          hookTimeout: 60_000,
          // Tests leave modules as they are (two stand in for the framework's, alike): loading each
          // once a worker, and not once a file, saves a third of the time.
          isolate: false,
        },
      },
      {
        resolve,
        test: {
          name: 'components',
          include: ['src/ui/**/*.test.tsx'],
          environment: 'happy-dom',
          setupFiles: ['tests/support/navigation.ts', 'tests/support/patience.ts'],
          testTimeout: 30_000,
        },
      },
      // By scripts of their own: they need programs that not every machine has.
      ...(process.env['TEST_FIREFOX'] === '1'
        ? [{ resolve, test: { name: 'firefox', include: ['tests/firefox/**/*.test.ts'] } }]
        : []),
      ...(process.env['TEST_OFFICE'] === '1'
        ? [
            {
              resolve,
              test: {
                name: 'office',
                include: ['tests/office/**/*.test.ts'],
                server: { deps: { inline: ['server-only'] } },
                testTimeout: 120_000,
              },
            },
          ]
        : []),
    ],
  },
});

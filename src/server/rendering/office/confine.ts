import { spawnSync } from 'node:child_process';

/** How long it may run, and how long it may compute. */
const SECONDS = 45;
/** What it may take of addresses; what it uses of memory is a part of that. */
const MOST_MEMORY = 4 * 2 ** 30;
const MOST_WRITTEN = 512 * 2 ** 20;

// Namespaces of Linux (unshare(1), util-linux) need no rights of their own; the shell empties the folders and
// becomes the program. What comes after `--` is never read as a command.
const EMPTY_AND_RUN =
  'while [ "$1" != -- ]; do mount -t tmpfs -o size=4k none "$1" || exit 96; shift; done; shift; exec "$@"';

/**
 * The command that runs a program where it reaches no network, where folders are empty to it, and
 * where it is ended after a time, or once it takes too much. @param hidden such folders, each before
 * the one that it lies in
 */
export function confined(
  hidden: readonly string[],
  program: string,
  args: readonly string[],
): { readonly command: string; readonly args: readonly string[] } {
  return {
    command: 'timeout',
    args: [
      '--kill-after=2',
      String(SECONDS),
      'prlimit',
      `--as=${String(MOST_MEMORY)}`,
      `--cpu=${String(SECONDS)}`,
      `--fsize=${String(MOST_WRITTEN)}`,
      '--core=0',
      '--',
      'unshare',
      '--user',
      '--map-root-user',
      '--net',
      '--mount',
      '--ipc',
      '--',
      'sh',
      '-c',
      EMPTY_AND_RUN,
      'sh',
      ...hidden,
      '--',
      program,
      ...args,
    ],
  };
}

/** Whether this machine can run a program so; else why not, in its own words. */
export function whyNotConfined(hidden: readonly string[], program: string): string | null {
  const { command, args } = confined(hidden, 'sh', ['-c', 'command -v "$0"', program]);
  // The comment within is for the build, as in `db/database.ts`.
  const { status, error, stderr } = spawnSync(/* turbopackIgnore: true */ command, [...args], {
    encoding: 'utf8',
  });
  if (error !== undefined) return error.message;
  if (status === 0) return null;
  const said = stderr.trim().split('\n').at(-1) ?? '';
  return said === '' ? `there is no program ${program}` : said;
}

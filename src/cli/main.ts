import { ConfigError, readConfig } from '@/server/config/env';
import { AppError } from '@/core/base/errors';
import { verifyCommand } from '@/cli/ledger-verify';
import { exportCommand } from '@/cli/ledger-export';
import { recoverCommand } from '@/cli/recover';

/** What a command hands back: 0 well, 1 something is wrong with what was looked at, 2 the call was wrong. */
export type ExitCode = 0 | 1 | 2;

const HELP = `embargo: the command line of Embargo

  npm run embargo -- ledger verify [--json]      checks chain, checkpoints, personal values and grants
  npm run embargo -- ledger export [--json]      writes the ledger to standard output, an entry a line
  npm run embargo -- recover FILE --identity KEY [--out PATH]
                                                 opens an age file without server or database

Settings come from the environment, as for the server: DATA_DIR and others.
Exit codes: 0 all is well, 1 something was found to be wrong, 2 the call cannot be understood.
`;

async function run(args: readonly string[]): Promise<ExitCode> {
  const [first, second] = args;
  if (args.length === 0 || first === '--help' || first === 'help') {
    process.stdout.write(HELP);
    return 0;
  }
  if (first === 'ledger' && second === 'verify') return verifyCommand(readConfig(), args.slice(2));
  if (first === 'ledger' && second === 'export') return exportCommand(readConfig(), args.slice(2));
  if (first === 'recover') return recoverCommand(args.slice(1));
  process.stderr.write(`There is no command “${args.join(' ')}”.\n\n${HELP}`);
  return 2;
}

run(process.argv.slice(2)).then(
  (code) => { process.exitCode = code; },
  (error: unknown) => {
    if (!(error instanceof AppError)) throw error;
    process.stderr.write(`${error.message}\n`);
    process.exitCode = error instanceof ConfigError ? 2 : 1;
  },
);

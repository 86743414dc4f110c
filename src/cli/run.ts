import { commandLineText } from '@/words/command-line-problems';
import { parseArgs } from 'node:util';
import { AppError } from '@/core/base/errors';
import { ConfigError, readConfig } from '@/server/config/env';
import { UsageError, type Call, type Command, type ExitCode } from '@/cli/command';

/** Each is loaded when it is called: one that needs no service does not wait for what makes one. */
const COMMANDS: Readonly<Record<string, () => Promise<Command>>> = {
  protect: async () => (await import('@/cli/commands/protect')).protectCommand,
  inspect: async () => (await import('@/cli/commands/inspect')).inspectCommand,
  recover: async () => (await import('@/cli/commands/recover')).recoverCommand,
  'ledger verify': async () => (await import('@/cli/commands/ledger-verify')).verifyCommand,
  'statement check': async () => (await import('@/cli/commands/statement-check')).statementCommand,
  'ledger export': async () => (await import('@/cli/commands/ledger-export')).exportCommand,
  'key rotate': async () => (await import('@/cli/commands/key-rotate')).rotateCommand,
  backup: async () => (await import('@/cli/commands/backup')).backupCommand,
  restore: async () => (await import('@/cli/commands/restore')).restoreCommand,
  check: async () => (await import('@/cli/commands/check')).checkCommand,
};

async function helpOfAll(): Promise<string> {
  const commands = await Promise.all(Object.values(COMMANDS).map((load) => load()));
  const lines = commands.map(
    ({ name, usage, summary }) => `  ${`${name} ${usage}`.trim()}\n      ${summary}`,
  );
  return `embargo: the command line of Embargo

${lines.join('\n')}

Each has --help, and --json for an answer that programs read.
Settings come from the environment, as for the server: DATA_DIR and others.
Exit codes: 0 all is well, 1 something was found to be wrong or could not be done, 2 the call cannot be understood.
`;
}

function helpOf({ name, usage, summary, help }: Command): string {
  return `npm run embargo -- ${name} ${usage}\n\n${summary}\n\n${help}\n`;
}

/** Shows progress on one line of the terminal; says nothing where nobody watches. */
function progressLine(quiet: boolean): {
  readonly show: Call['progress'];
  readonly end: () => void;
} {
  if (quiet || !process.stderr.isTTY) return { show: () => undefined, end: () => undefined };
  let shown = 0;
  return {
    show: (done, all, words) => {
      if (done < all && Date.now() - shown < 100) return;
      shown = Date.now();
      process.stderr.write(
        `\r\x1b[K${words} ${all > 0 ? `${String(Math.floor((done / all) * 100))} %` : String(done)}`,
      );
    },
    end: () => {
      if (shown > 0) process.stderr.write('\r\x1b[K');
    },
  };
}

/** Where a command's words go, and where its settings come from. */
export type Surroundings = {
  readonly out: (text: string) => void;
  readonly err: (text: string) => void;
  /** Absent: this process’s own. */ readonly environment?: Readonly<
    Record<string, string | undefined>
  >;
};

type Values = Readonly<Record<string, string | boolean | (string | boolean)[] | undefined>>;

function callOf(
  files: readonly string[],
  values: Values,
  progress: Call['progress'],
  { environment }: Surroundings,
): Call {
  return {
    files,
    progress,
    text: (name) => (typeof values[name] === 'string' ? values[name] : undefined),
    texts: (name) => {
      const value = values[name];
      return Array.isArray(value) ? value.filter((each) => typeof each === 'string') : [];
    },
    flag: (name) => values[name] === true,
    config: () => readConfig(environment),
  };
}

async function runCommand(
  command: Command,
  args: readonly string[],
  around: Surroundings,
): Promise<ExitCode> {
  let parsed;
  try {
    parsed = parseArgs({
      args: [...args],
      allowPositionals: true,
      options: { ...command.options, help: { type: 'boolean' }, json: { type: 'boolean' } },
    });
  } catch (error) {
    throw new UsageError(
      error instanceof Error
        ? `${error.message.split('. ')[0] ?? ''}.`
        : 'The call cannot be understood.',
    );
  }
  if (parsed.values.help === true) {
    around.out(helpOf(command));
    return 0;
  }
  const json = parsed.values.json === true;
  const { show, end } = progressLine(json);
  try {
    const outcome = await command.run(callOf(parsed.positionals, parsed.values, show, around));
    end();
    around.out(json ? `${JSON.stringify(outcome.json)}\n` : outcome.text);
    return outcome.code;
  } catch (error) {
    end();
    if (!json || !isOurs(error)) throw error;
    around.out(
      `${JSON.stringify({ error: { code: error.code, message: commandLineText(error) } })}\n`,
    );
    return exitOf(error);
  }
}

/** Whether an error is one of ours, with a sentence for the caller. */
function isOurs(error: unknown): error is AppError {
  return error instanceof AppError;
}

function exitOf(error: AppError): ExitCode {
  return error instanceof ConfigError || error instanceof UsageError ? 2 : 1;
}

async function choose(args: readonly string[], around: Surroundings): Promise<ExitCode> {
  const words = `${args.slice(0, 2).join(' ')} `;
  const [name, load] =
    Object.entries(COMMANDS).find(([each]) => words.startsWith(`${each} `)) ?? [];
  if (name !== undefined && load !== undefined)
    return runCommand(await load(), args.slice(name.split(' ').length), around);
  if (args.length === 0 || args[0] === '--help' || args[0] === 'help') {
    around.out(await helpOfAll());
    return 0;
  }
  around.err(`There is no command “${args.join(' ')}”.\n\n${await helpOfAll()}`);
  return 2;
}

/** Runs one call of the command line. What goes wrong is said in a sentence; only what nobody foresaw is thrown. */
export async function runCommandLine(
  args: readonly string[],
  around: Surroundings,
): Promise<ExitCode> {
  try {
    return await choose(args, around);
  } catch (error) {
    if (!isOurs(error)) throw error;
    around.err(`${commandLineText(error)}\n`);
    return exitOf(error);
  }
}

import { runCommandLine } from '@/cli/run';

export type Ran = { readonly code: number; readonly out: string; readonly err: string };

/** Runs a command as `npm run embargo` does, with these settings, and hears what it says. */
export async function runCommand(
  args: readonly string[],
  environment: Readonly<Record<string, string>> = {},
): Promise<Ran> {
  let [out, err] = ['', ''];
  const code = await runCommandLine(args, {
    out: (text) => {
      out += text;
    },
    err: (text) => {
      err += text;
    },
    environment: { LOG_LEVEL: 'silent', ...environment },
  });
  return { code, out, err };
}

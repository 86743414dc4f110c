import { runCommandLine } from '@/cli/run';

process.exitCode = await runCommandLine(process.argv.slice(2), {
  out: (text) => {
    process.stdout.write(text);
  },
  err: (text) => {
    process.stderr.write(text);
  },
});

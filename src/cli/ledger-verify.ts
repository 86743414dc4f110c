import type { Config } from '@/server/config/env';
import type { ExitCode } from '@/cli/main';
import { openLedger } from '@/cli/open-ledger';
import { verifyLedger, type Verification } from '@/server/services/verify-ledger';

function report({ entries, checkpoints, signed, problems }: Verification): string {
  if (problems.length === 0) return `The ledger holds: ${String(entries)} entries follow one another unaltered, ${String(checkpoints)} signed checkpoints agree (the last covers ${String(signed)} entries), and access stands as recorded.\n`;
  return `The ledger does not hold.\n${problems.map((problem) => `  entry ${String(problem.sequence)}: ${problem.detail} (${problem.kind})\n`).join('')}`;
}

/** `ledger verify`: names the first bad entry. */
export async function verifyCommand(config: Config, args: readonly string[]): Promise<ExitCode> {
  const { db, publicKey } = await openLedger(config);
  const show = process.stderr.isTTY && !args.includes('--json');
  const verification = await verifyLedger(db.read, publicKey, (entries) => { if (show) process.stderr.write(`\r${String(entries)} entries`); });
  if (show) process.stderr.write('\r');
  await db.close();
  process.stdout.write(args.includes('--json') ? `${JSON.stringify(verification)}\n` : report(verification));
  return verification.problems.length === 0 ? 0 : 1;
}

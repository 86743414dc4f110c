import type { Command } from '@/cli/command';
import { openLedger } from '@/cli/open-ledger';
import { verifyLedger, type Verification } from '@/server/services/verify-ledger';

function report({ entries, checkpoints, signed, problems }: Verification): string {
  if (problems.length === 0) return `The ledger holds: ${String(entries)} entries follow one another unaltered, ${String(checkpoints)} signed checkpoints agree (the last covers ${String(signed)} entries), and access stands as recorded.\n`;
  return `The ledger does not hold.\n${problems.map((problem) => `  entry ${String(problem.sequence)}: ${problem.detail} (${problem.kind})\n`).join('')}`;
}

export const verifyCommand: Command = {
  name: 'ledger verify', usage: '', summary: 'Checks chain, checkpoints, personal values and grants, and names the first bad entry.',
  help: 'Needs the database, and no key. Exit code 1 where the ledger does not hold.', options: {},
  run: async (call) => {
    const { db, publicKey } = await openLedger(call.config());
    try {
      const verification = await verifyLedger(db.read, publicKey, (entries) => { call.progress(entries, 0, 'entries'); });
      return { code: verification.problems.length === 0 ? 0 : 1, text: report(verification), json: verification };
    } finally {
      await db.close();
    }
  },
};

import { readSnapshot } from '@/server/db/database';
import type { Command } from '@/cli/command';
import { openLedger } from '@/cli/open-ledger';
import type { Verification } from '@/core/ledger/verify';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';

function problemLine({ sequence, detail, kind }: Verification['problems'][number]): string {
  return `  entry ${String(sequence)}: ${detail} (${kind})`;
}

function report(
  { entries, checkpoints, signed, witnessed, sealed, backwards, problems }: Verification,
  witness: string | null,
): string {
  const lines = [
    problems.length === 0
      ? `The ledger holds: ${String(entries)} entries follow one another unaltered, ` +
        `${String(checkpoints)} signed checkpoints agree (the last covers ${String(signed)} ` +
        'entries), and access stands as recorded.'
      : `The ledger does not hold.\n${problems.map(problemLine).join('\n')}`,
    witness === null
      ? 'There is no witness file: this proves nothing against somebody who can write to the database.'
      : `Proven against ${witness}, which was kept outside the database, for the first ` +
        `${String(witnessed ?? 0)} entries.`,
    sealed
      ? 'Rows that decide about access were compared with their seals.'
      : 'The master key is not here, so the seals of rows were not compared.',
    ...(backwards === 0
      ? []
      : [
          `${String(backwards)} entries have a time before that of an earlier one: a clock was set back.`,
        ]),
  ];
  return `${lines.join('\n')}\n`;
}

export const verifyCommand: Command = {
  name: 'ledger verify',
  usage: '[--witness FILE]',
  summary:
    'Checks chain, checkpoints, personal values, counts, grants and seals, and names the first bad entry.',
  help: `--witness FILE  signed checkpoints and the key that signs them, as they were kept outside the
                database; WITNESS_FILE where it is left out

Needs the database. Where the master key is at hand, the seals of rows are compared as well.
Exit code 1 where the ledger does not hold.`,
  options: { witness: { type: 'string' } },
  run: async (call) => {
    const { db, outside, witness } = await openLedger(call.config(), call.text('witness'));
    try {
      // The server may go on writing: what it writes meanwhile is no difference.
      const verification = await readSnapshot(call.config().databaseUrl, (at) =>
        verifyLedger(at, outside, (entries) => {
          call.progress(entries, 0, 'entries');
        }),
      );
      return {
        code: verification.problems.length === 0 ? 0 : 1,
        text: report(verification, witness),
        json: { ...verification, witness },
      };
    } finally {
      await db.close();
    }
  },
};

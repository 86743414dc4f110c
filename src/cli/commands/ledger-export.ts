import type { Command } from '@/cli/command';
import { openLedger } from '@/cli/open-ledger';
import { storedEntries } from '@/server/repositories/ledger/ledger-chain';
import { writeWhole } from '@/cli/write-whole';

export const exportCommand: Command = {
  name: 'ledger export',
  usage: '[--out FILE]',
  summary: 'Writes every entry as its canonical JSON, one a line, as it was hashed.',
  help: '--out FILE   where to; else standard output. With --json and --out, the answer says how many.',
  options: { out: { type: 'string' } },
  run: async (call) => {
    const { db } = await openLedger(call.config());
    let entries = 0;
    const lines = async function* (): AsyncGenerator<Uint8Array> {
      for await (const block of storedEntries(db.read)) {
        entries += block.length;
        call.progress(entries, 0, 'entries');
        yield Buffer.from(`${block.map((entry) => entry.text).join('\n')}\n`);
      }
    };
    try {
      const out = call.text('out');
      if (out === undefined) for await (const bytes of lines()) process.stdout.write(bytes);
      else await writeWhole(out, lines());
      return {
        code: 0,
        text: out === undefined ? '' : `${String(entries)} entries in ${out}\n`,
        json: { entries, out: out ?? null },
      };
    } finally {
      await db.close();
    }
  },
};

import type { Config } from '@/server/config/env';
import type { ExitCode } from '@/cli/main';
import { openLedger } from '@/cli/open-ledger';
import { storedEntries } from '@/server/repositories/ledger-reader';

/** `ledger export`: every entry as its canonical text, one a line, as it was hashed. */
export async function exportCommand(config: Config, _args: readonly string[]): Promise<ExitCode> {
  const { db } = await openLedger(config);
  for await (const block of storedEntries(db.read)) process.stdout.write(`${block.map((entry) => entry.text).join('\n')}\n`);
  await db.close();
  return 0;
}

import { readFileSync } from 'node:fs';
import { UsageError, type Command } from '@/cli/command';
import { LedgerError } from '@/core/ledger/errors';
import { openStatement } from '@/core/ledger/statement';
import { ConfigError } from '@/server/config/env';
import { readWitness } from '@/server/storage/witness';
import { verifyEd25519 } from '@/server/vault/vault';
import { nodeHash } from '@/server/vault/node-hash';

export const statementCommand: Command = {
  name: 'statement check',
  usage: 'FILE --witness FILE',
  summary: 'Checks a signed statement about a revocation, without the database.',
  help: `--witness FILE  holds the key that signs, as it was kept outside the database

Checks the signature, that the lines say what the data says, and that every entry is in the ledger
that the checkpoint in the statement is about.
Exit code 1 where it does not hold.`,
  options: { witness: { type: 'string' } },
  run: (call) => {
    const [file, ...more] = call.files;
    const witness = call.text('witness');
    if (file === undefined || more.length > 0 || witness === undefined)
      throw new UsageError('Name one statement and the witness file: FILE --witness FILE.');
    const { publicKey } = readWitness(witness);
    if (publicKey === null) throw new ConfigError(`There is no key in ${witness}.`);
    try {
      const { about, madeAt, rows, entries } = openStatement(
        readFileSync(file, 'utf8'),
        publicKey,
        nodeHash,
        verifyEd25519,
      );
      const open = rows.filter(({ state }) => state !== 'closed').length;
      return Promise.resolve({
        code: 0,
        text:
          `The statement holds: ${about}, as of ${madeAt}. ${String(rows.length - open)} of ` +
          `${String(rows.length)} shut out; ${String(entries.length)} entries proven.\n`,
        json: { holds: true, about, madeAt, rows, entries: entries.length },
      });
    } catch (error) {
      if (!(error instanceof LedgerError)) throw error;
      return Promise.resolve({
        code: 1,
        text: `The statement does not hold. ${error.message}\n`,
        json: { holds: false, why: error.message },
      });
    }
  },
};

import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import { createInterface } from 'node:readline/promises';
import { IdentityError, openIdentity } from '@/core/age/identity-file';
import type { Call } from '@/cli/command';

async function ask(question: string): Promise<string> {
  const lines = createInterface({ input: process.stdin, output: process.stderr });
  try {
    return (await lines.question(question)).trim();
  } finally {
    lines.close();
  }
}

/** The passphrases of files named on the call, in turn, then those somebody types. */
function passphrases(call: Call): (layer: number) => Promise<string> {
  const files = call.texts('passphrase-file');
  return async (layer) => {
    const file = files[layer];
    if (file !== undefined) return readFileSync(file, 'utf8').trim();
    if (!process.stdin.isTTY)
      throw new IdentityError(
        'WRONG_PASSPHRASE',
        'This key is kept under a passphrase. Name a file that holds it with ' +
          '--passphrase-file, once for each person, the last who set theirs first.',
      );
    return ask(`Passphrase${layer === 0 ? '' : ' of the other person'}: `);
  };
}

/** The private key in a key file, opened with passphrases where it is kept under them. @throws IdentityError */
export async function readIdentity(call: Call, file: string): Promise<string> {
  const content = await readFile(file).catch(() => {
    throw new IdentityError('NO_IDENTITY', `There is no key file ${file}, or it may not be read.`);
  });
  return openIdentity(content, passphrases(call));
}

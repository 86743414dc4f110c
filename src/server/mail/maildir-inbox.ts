import { mkdir, open, readdir, rename } from 'node:fs/promises';
import path from 'node:path';
import { BEGINNING_BYTES, type MailInbox } from '@/server/mail/inbox';

async function beginningOf(file: string): Promise<Uint8Array> {
  const handle = await open(file, 'r');
  try {
    const { buffer, bytesRead } = await handle.read(new Uint8Array(BEGINNING_BYTES));
    return buffer.subarray(0, bytesRead);
  } finally {
    await handle.close();
  }
}

async function newIn(folder: string): Promise<readonly string[]> {
  try {
    return (await readdir(path.join(folder, 'new'))).sort();
  } catch (error) {
    // The mail server makes it with the first message.
    if (error instanceof Error && 'code' in error && error.code === 'ENOENT') return [];
    throw error;
  }
}

/**
 * A Maildir that a mail server delivers into: what is in `new` is taken, and put into `cur` marked
 * as seen, where it stays for people to read.
 */
export function createMaildirInbox(folder: string): MailInbox {
  return {
    take: async (each) => {
      const names = await newIn(folder);
      if (names.length > 0) await mkdir(path.join(folder, 'cur'), { recursive: true });
      for (const name of names) {
        const file = path.join(folder, 'new', name);
        if ((await each(await beginningOf(file))) === 'done')
          await rename(file, path.join(folder, 'cur', `${name}:2,S`));
      }
    },
  };
}

import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents, uploads } from '@/server/db/schema/documents';
import { grants } from '@/server/db/schema/access';
import { outbox } from '@/server/db/schema/mailing';
import { readConfig } from '@/server/config/env';
import { createContainer } from '@/server/container';
import { checkContents } from '@/server/services/documents/check-contents';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { runUntilKilled } from '../support/killed';
import { blobFile } from '../support/blob-file';

const LATEST = 1_500;

/** What of one killed product's work does not stand, in words. */
async function whatIsLost(
  folder: string,
  said: string,
): Promise<{ readonly lost: string[]; readonly sent: number }> {
  const acknowledged = Number(/done (\d+)\n(?!.*done)/s.exec(said)?.[1] ?? 0);
  const container = await createContainer(readConfig({ DATA_DIR: folder, LOG_LEVEL: 'silent' }), {
    demo: true,
    threads: 1,
  });
  const { deps } = container;
  const { read } = deps.db;
  const seals = deps.integrity;
  const [{ problems }, checked, sent, stored] = [
    await verifyLedger(read, { publicKey: deps.recorder.signer.publicKey, seals }),
    await checkContents(deps, null, () => undefined),
    await read.$count(dispatches),
    await read.$count(documents),
  ];
  const lost = [
    ...problems.map(({ detail }) => detail),
    ...checked.damaged.map(({ title, problem }) => `${title}: ${problem}`),
    ...checked.dangling.map(({ row, parent }) => `${row} names nothing in ${parent}`),
    ...(sent < acknowledged
      ? [`${String(acknowledged)} dispatches were acknowledged, ${String(sent)} are there`]
      : []),
    ...(stored < acknowledged + 1
      ? [`${String(acknowledged + 1)} documents were acknowledged, ${String(stored)} are there`]
      : []),
    ...((await read.$count(grants)) === sent * 2 && (await read.$count(outbox)) === sent * 2
      ? []
      : ['a dispatch is half there']),
    ...(await read.select().from(uploads))
      .filter(({ blobKey }) => !existsSync(blobFile({ folder }, blobKey)))
      .map(({ id }) => `${id} has no file`),
  ];
  await container.close();
  return { lost, sent };
}

/** Kills a product that protects and dispatches without a pause, at random moments, and looks at what it left. */
export async function killAtRandom(
  kills: number,
): Promise<{ readonly kills: number; readonly lost: readonly string[]; readonly sent: number }> {
  const lost: string[] = [];
  let sent = 0;
  for (let i = 0; i < kills; i++) {
    const folder = mkdtempSync(path.join(tmpdir(), 'embargo-kill-'));
    const said = await runUntilKilled(
      'tests/support/busy-product.ts',
      folder,
      'busy',
      Math.floor(Math.random() * LATEST),
    );
    const found = await whatIsLost(folder, said);
    lost.push(...found.lost);
    sent += found.sent;
    rmSync(folder, { recursive: true, force: true });
  }
  return { kills, lost, sent };
}

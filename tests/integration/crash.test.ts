// A process is killed while it dispatches and while it encrypts; what it leaves behind must be whole.
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { sql } from 'drizzle-orm';
import { expect, test } from 'vitest';
import { dispatches } from '@/server/db/schema/dispatching';
import { documents, uploads } from '@/server/db/schema/documents';
import { grants } from '@/server/db/schema/access';
import { outbox } from '@/server/db/schema/mailing';
import { staff } from '@/server/db/schema/staff';
import { readConfig } from '@/server/config/env';
import { createContainer } from '@/server/container';
import type { StaffActor } from '@/server/services/base/deps';
import { protectDocument } from '@/server/services/documents/protect-document';
import { verifyLedger } from '@/server/services/ledger/verify-ledger';
import { runUntilKilled } from '../support/killed';
import { blobFile } from '../support/blob-file';

test.each([90, 350])(
  'killed %i ms into its work it loses nothing and doubles nothing',
  async (after) => {
    const folder = mkdtempSync(path.join(tmpdir(), 'embargo-crash-'));
    await runUntilKilled('tests/support/busy-product.ts', folder, 'busy', after);
    const container = await createContainer(readConfig({ DATA_DIR: folder, LOG_LEVEL: 'silent' }), {
      demo: true,
      threads: 1,
    });
    const { read } = container.deps.db;
    const verification = await verifyLedger(read, {
      publicKey: container.deps.recorder.signer.publicKey,
    });
    expect(verification.problems).toEqual([]);
    expect(verification.entries).toBeGreaterThan(2);
    const sent = await read.$count(dispatches);
    expect(sent).toBeGreaterThan(0);
    // Each dispatch of the busy product is one document to two people.
    expect(await read.$count(grants)).toBe(sent * 2);
    expect(await read.$count(outbox)).toBe(sent * 2);
    // Blobs without an upload are swept at the start; every document has its own.
    const left = await read.select().from(uploads);
    expect(readdirSync(path.join(folder, 'incoming')).length).toBeLessThanOrEqual(left.length);
    expect(left.filter((upload) => !existsSync(blobFile({ folder }, upload.blobKey)))).toEqual([]);
    // What was received whole can be finished now, wherever the process was ended.
    const [owner] = await read.select().from(staff);
    const actor: StaffActor = {
      kind: 'staff',
      id: owner?.id ?? 'stf_',
      name: '',
      email: '',
      role: 'administrator',
      session: 'test',
      proven: true,
      from: { network: '192.0.2.10', agent: 'test' },
    };
    for (const { id, receivedBytes, declaredBytes } of left)
      if (receivedBytes === declaredBytes)
        await protectDocument(container.deps, actor, {
          id,
          title: 'After the end',
          reference: id,
          again: true,
        });
    expect(await read.$count(uploads, sql`received_bytes = declared_bytes`)).toBe(0);
    expect(readdirSync(path.join(folder, 'blobs')).length).toBeGreaterThanOrEqual(
      await read.$count(documents),
    );
    await container.close();
    rmSync(folder, { recursive: true, force: true });
  },
  60_000,
);

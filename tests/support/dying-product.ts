// Works on a prepared folder and kills itself at a named point: `dying-product FOLDER POINT STEP`.
import { appendFileSync } from 'node:fs';
import disk from 'node:fs/promises';
import { syncBuiltinESMExports } from 'node:module';
import path from 'node:path';
import { runCommandLine } from '@/cli/run';
import { readConfig } from '@/server/config/env';
import { createContainer } from '@/server/container';
import { beginUpload } from '@/server/services/documents/begin-upload';
import { deliverMail } from '@/server/services/mailing/deliver-mail';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { makeBackup } from '@/server/services/keys/make-backup';
import { protectDocument } from '@/server/services/documents/protect-document';
import { receivePart } from '@/server/services/documents/receive-part';
import { rotateMasterKey } from '@/server/services/keys/rotate-master-key';
import { createDiskBlobStore, realDisk, type Disk } from '@/server/storage/disk-blob-store';
import { listStaff } from '@/server/repositories/staff/staff-repository';
import { dispatch, drawing, inPieces, type Product } from './product';

type Dying = {
  readonly deps: Deps;
  readonly actor: StaffActor;
  readonly folder: string;
  readonly step: number;
};

/** Lists what was handed to the mail server, however often. */
function handedOver(folder: string): string {
  return path.join(folder, 'work', 'handed-over');
}

function die(): void {
  process.kill(process.pid, 'SIGKILL');
}

/** Dies when it is called for the `step`th time, counted from 0. */
function countdown(step: number): () => void {
  let left = step;
  return () => {
    if (left-- === 0) die();
  };
}

async function protectMany({ deps, actor }: Dying): Promise<void> {
  const bytes = await drawing(1);
  for (let i = 0; ; i++) {
    const { id } = await beginUpload(deps, actor, { fileName: 'dying.pdf', bytes: bytes.length });
    await receivePart(deps, actor, { id, offset: 0 }, inPieces(bytes));
    await protectDocument(deps, actor, {
      id,
      title: `Dying ${String(i)}`,
      reference: `DYING-${String(i)}`,
      again: true,
    });
    process.stdout.write(`stored ${String(i + 1)}\n`);
  }
}

/** Calls `after` after each rename, or each opening of a file, no matter by whom. */
function watchDisk(name: 'rename' | 'open', after: () => void): void {
  const real = disk[name] as (...args: unknown[]) => Promise<unknown>;
  disk[name] = (async (...args: unknown[]) => {
    const result = await real(...args);
    after();
    return result;
  }) as never;
  syncBuiltinESMExports();
}

const POINTS: Readonly<Record<string, (dying: Dying) => Promise<unknown>>> = {
  'after the blob and before its row': (dying) => {
    const { blobs } = dying.deps;
    const tick = countdown(dying.step);
    const deps: Deps = {
      ...dying.deps,
      blobs: {
        ...blobs,
        finish: async (key, size) => {
          await blobs.finish(key, size);
          tick();
        },
      },
    };
    return protectMany({ ...dying, deps });
  },
  'after a rename': (dying) => {
    const tick = countdown(dying.step);
    const renaming: Disk = {
      ...realDisk,
      rename: async (from, to) => {
        await realDisk.rename(from, to);
        tick();
      },
    };
    return protectMany({
      ...dying,
      deps: { ...dying.deps, blobs: createDiskBlobStore(dying.folder, renaming) },
    });
  },
  'after the mail server’s answer': async ({ deps, actor, folder, step }) => {
    const tick = countdown(step);
    const { mailer } = deps;
    if (mailer === null) throw new Error('no mail');
    const product = { deps, ida: actor, folder } as Product;
    const [document] = await deps.db.read.query.documents.findMany();
    if (document === undefined) throw new Error('no document');
    await dispatch(
      product,
      [document.id],
      Array.from({ length: step + 6 }, (_, i) => `mail.${String(i)}@ferrow.example`),
    );
    return deliverMail({
      ...deps,
      mailer: {
        ...mailer,
        deliver: async (mail) => {
          appendFileSync(handedOver(folder), `${mail.to}\n`);
          await mailer.deliver(mail);
          tick();
        },
      },
    });
  },
  'between re-wrapping and forgetting a key': ({ deps, folder, step }) => {
    const tick = countdown(step % 2);
    return rotateMasterKey(
      deps,
      path.join(folder, 'keys', 'master.key'),
      { kind: 'system', id: null },
      () => {
        tick();
      },
    );
  },
  'inside a backup': async ({ deps, folder, step }) => {
    const tick = countdown(step);
    const { db } = deps;
    const copying: Deps = {
      ...deps,
      db: {
        ...db,
        copyTo: async (file) => {
          await db.copyTo(file);
          tick();
        },
      },
    };
    const { pieces } = await makeBackup(copying, path.join(folder, 'keys', 'master.key'), folder);
    for await (const piece of pieces) {
      await disk.appendFile(path.join(folder, 'work', 'partial.age'), piece);
      tick();
    }
    die();
  },
  'inside a restore': async ({ folder, step }) => {
    const work = (name: string): string => path.join(folder, 'work', name);
    // Files are opened one by one; then the folder gets its name, which is the last thing.
    if (step === 9) watchDisk('rename', die);
    else watchDisk('open', countdown(step));
    const silent = {
      out: () => undefined,
      err: () => undefined,
      environment: { LOG_LEVEL: 'silent', DATA_DIR: folder },
    };
    await runCommandLine(
      ['restore', work('b.age'), '--identity', work('key'), '--into', work('new'), '--revoke-all'],
      silent,
    );
    die();
  },
};

const [folder = '', point = '', step = '0'] = process.argv.slice(2);
const { deps } = await createContainer(readConfig({ DATA_DIR: folder, LOG_LEVEL: 'silent' }), {
  demo: true,
  threads: 1,
});
const owner = (await listStaff(deps.db.read))[0]?.row;
if (owner === undefined) throw new Error('nobody works here');
const actor: StaffActor = {
  kind: 'staff',
  id: owner.id,
  name: owner.name,
  email: owner.email,
  role: 'administrator',
  session: 'dying',
  proven: true,
  from: { network: '192.0.2.10', agent: 'test' },
};
process.stdout.write('begun\n');
await POINTS[point]?.({ deps, actor, folder, step: Number(step) });
throw new Error(`It outlived “${point}”.`);

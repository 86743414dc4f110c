import path from 'node:path';
import type { Command } from '@/cli/command';
import { actorNamed, withService } from '@/cli/open-service';
import { writeWhole } from '@/cli/write-whole';
import { makeBackup } from '@/server/services/keys/make-backup';
import { recordAlone } from '@/server/services/base/record';

export const backupCommand: Command = {
  name: 'backup',
  usage: '[--out FILE]',
  summary:
    'Writes database, contents and keys as one set, encrypted to the recovery key. The server may run.',
  help: `--out FILE     where to; else embargo-backup-<moment>.tar.age here
--as ADDRESS   which member of staff this is, where there are several administrators

Standard tools open it: age -d -i KEY FILE | tar x. Keep the list of what ended (ENDED_FILE) as well,
apart from the backups: a restore is brought up to it, so that nothing revoked comes back.`,
  options: { out: { type: 'string' }, as: { type: 'string' } },
  run: async (call) => {
    const config = call.config();
    return withService(config, async (container) => {
      const { deps } = container;
      const actor = await actorNamed(container, call.text('as'));
      const { manifest, pieces } = await makeBackup(
        deps,
        config.masterKeyFile,
        config.dataDir,
        (done, all) => {
          call.progress(done, all, 'contents');
        },
      );
      const out = path.resolve(
        call.text('out') ??
          `embargo-backup-${new Date(manifest.madeAt).toISOString().slice(0, 19).replaceAll(':', '')}.tar.age`,
      );
      const bytes = await writeWhole(out, pieces);
      await recordAlone(deps, {
        action: 'backup.made',
        outcome: 'done',
        actor: { kind: 'staff', id: actor.id },
        occurredAt: deps.clock.now(),
        details: { entries: manifest.entries, contents: manifest.blobs, bytes },
      });
      return {
        code: 0,
        text:
          `${out}\n${String(manifest.blobs)} contents, ${String(manifest.entries)} ledger ` +
          `entries, ${String(bytes)} bytes.\n`,
        json: { out, bytes, ...manifest },
      };
    });
  },
};

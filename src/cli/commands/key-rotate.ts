import type { Command } from '@/cli/command';
import { actorNamed, withService } from '@/cli/open-service';
import { rotateMasterKey } from '@/server/services/keys/rotate-master-key';

export const rotateCommand: Command = {
  name: 'key rotate',
  usage: '',
  summary:
    'Puts every stored key under a new master key and forgets the old one. Content is not touched; the server may run.',
  help: `Can be cut off at any point and called again: it goes on where it was.
Backups made before hold the old master key, and open with it.
--as ADDRESS   which member of staff this is, where there are several administrators`,
  options: { as: { type: 'string' } },
  run: async (call) => {
    const config = call.config();
    return withService(config, async (container) => {
      const actor = await actorNamed(container, call.text('as'));
      const { generation, keys } = await rotateMasterKey(
        container.deps,
        config.masterKeyFile,
        { kind: 'staff', id: actor.id },
        (done, all) => {
          call.progress(done, all, 'wrapped anew');
        },
      );
      return {
        code: 0,
        text:
          `Master key generation ${String(generation)}: ${String(keys)} keys wrapped anew, the ` +
          'old master key is gone.\n',
        json: { generation, keys },
      };
    });
  },
};

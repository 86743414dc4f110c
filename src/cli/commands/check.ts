import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { isId, type VersionId } from '@/core/base/ids';
import type { Command } from '@/cli/command';
import { withService } from '@/cli/open-service';
import {
  checkContents,
  type Checked,
  type ContentProblem,
} from '@/server/services/documents/check-contents';

const words: Record<ContentProblem, string> = {
  missing: 'is missing',
  cut: 'is not as long as it was',
  altered: 'is not what was stored',
  'no-key': 'has a key that the master key does not open',
};

function report({ contents, bytes, damaged, dangling }: Checked): string {
  const lines = [
    `${String(contents)} stored contents read, ${String(bytes)} bytes: ` +
      `${damaged.length === 0 ? 'each is what was stored' : `${String(damaged.length)} damaged`}.`,
  ];
  for (const { reference, title, problem } of damaged)
    lines.push(`  ${reference} ${title}: its content ${words[problem]}`);
  for (const { row, parent } of dangling)
    lines.push(`  ${row} names something that is not in ${parent}`);
  return `${lines.join('\n')}\n`;
}

/** Where a check that was cut off had come to. */
function readPlace(file: string): VersionId | null {
  const text = existsSync(file) ? readFileSync(file, 'utf8').trim() : '';
  return isId('version', text) ? text : null;
}

export const checkCommand: Command = {
  name: 'check',
  usage: '[--resume]',
  summary:
    'Reads every stored content and every reference through, and names what is damaged. The server may run.',
  help: `--resume   goes on where a check that was cut off had come to

Memory does not grow with what is stored. What is damaged stands on Today and with its document
from then on, until a check finds it whole again. Exit code 1 where anything is wrong.`,
  options: { resume: { type: 'boolean' } },
  run: async (call) => {
    const config = call.config();
    const place = path.join(config.dataDir, '.check');
    return withService(config, async ({ deps }) => {
      const checked = await checkContents(
        deps,
        call.flag('resume') ? readPlace(place) : null,
        (id, contents) => {
          writeFileSync(place, id, { mode: 0o600 });
          call.progress(contents, 0, 'contents');
        },
      );
      rmSync(place, { force: true });
      return {
        code: checked.damaged.length + checked.dangling.length === 0 ? 0 : 1,
        text: report(checked),
        json: checked,
      };
    });
  },
};

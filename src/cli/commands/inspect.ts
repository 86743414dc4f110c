import type { Config } from '@/server/config/env';
import { UsageError, type Command } from '@/cli/command';
import { withService } from '@/cli/open-service';
import { hasDatabase } from '@/server/db/database-file';
import { inspectOpen, withFile } from '@/cli/picked-file';
import { toUtcText } from '@/core/base/time';
import { isId } from '@/core/base/ids';
import type { Inspected } from '@/core/wrapper/inspect';
import type { FileFound } from '@/contracts/files';
import { findFile } from '@/server/services/documents/inspect-file';

/** What the recovery stanzas say of which tool opens it. */
function keyWords({ header }: Inspected): string {
  const kinds = new Set(header.stanzas.map(({ args }) => args[0]));
  if (kinds.has('X25519')) return 'A recovery key opens it (X25519: any age tool).';
  if (kinds.has('mlkem768x25519'))
    return 'A recovery key opens it (post-quantum hybrid: age 1.3 or later, or embargo recover).';
  return 'It carries no way in for a recovery key.';
}

/** For anyone who has no database here: that it is protected, and whom to ask. */
function strangerText(inspected: Inspected): string {
  const { stanza, link } = inspected;
  if (stanza === null) return `An age file that Embargo did not make. ${keyWords(inspected)}\n`;
  return [
    `A protected file of ${stanza.serviceUrl}.`,
    ...(link === null
      ? ['The PDF it came in says on its first page how to open it and whom to ask.']
      : [`It is read at ${link}`, 'Its first page says who sent it and whom to ask.']),
    keyWords(inspected),
    '',
  ].join('\n');
}

function staffText(
  { document, version, madeFor, grants }: FileFound,
  inspected: Inspected,
): string {
  const live = grants.filter(({ state }) => state === 'live').length;
  return [
    `${document.reference}, ${document.title}, version ${String(version.number)}` +
      (version.current ? '' : ' (not the current one)') +
      (document.revoked ? ', REVOKED' : ''),
    `Protected ${toUtcText(version.protectedAt)}, ${String(version.bytes)} bytes` +
      (version.keyDestroyed ? ', KEY DESTROYED' : ''),
    ...(madeFor === null
      ? []
      : [
          `Made for ${madeFor.address ?? 'everybody it was sent to'} in ${madeFor.reference}, ` +
            `sent ${toUtcText(madeFor.sentAt)} by ${madeFor.sentBy}`,
        ]),
    keyWords(inspected),
    `${String(live)} of ${String(grants.length)} grants open it now${grants.length === 0 ? '' : ':'}`,
    ...grants.map(
      ({ address, state, until }) =>
        `  ${address}  ${state}${until === null ? '' : `, until ${toUtcText(until)}`}`,
    ),
  ]
    .map((line) => `${line}\n`)
    .join('');
}

export const inspectCommand: Command = {
  name: 'inspect',
  usage: 'FILE',
  summary: 'Says what a protected file is, without opening it.',
  help:
    'With the database of its service (DATA_DIR): which document and version, made for whom, ' +
    'and which grants there are.\nWithout: that it is protected, and whom to ask.',
  options: {},
  run: async (call) => {
    const [path, ...more] = call.files;
    if (path === undefined || more.length > 0) throw new UsageError('Name one file to inspect.');
    const inspected = await withFile(path, inspectOpen);
    const { stanza, link, length } = inspected;
    const plain = {
      service: stanza?.serviceUrl ?? null,
      version: stanza?.version ?? null,
      link,
      payloadBytes: length,
      recovery: keyWords(inspected),
    };
    const found = await foundBy(call.config(), inspected);
    return {
      code: 0,
      text: found === null ? strangerText(inspected) : staffText(found, inspected),
      json: { ...plain, found },
    };
  },
};

/** What the database of its service says of a file; `null` where there is none here that knows it. */
async function foundBy(config: Config, { stanza, link }: Inspected): Promise<FileFound | null> {
  const { version = '', serviceUrl = '' } = stanza ?? {};
  if (!isId('version', version) || !hasDatabase(config.databaseUrl)) return null;
  return withService(config, ({ deps }) => findFile(deps, { version, serviceUrl, link }));
}

import { spawn } from 'node:child_process';
import { mkdir, mkdtemp, readFile, rm, stat, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import type { MediaType } from '@/core/content/media-types';
import { ContentError } from '@/core/pages/errors';
import { needSmallArchive } from '@/server/rendering/making/archive';
import { confined } from '@/server/rendering/office/confine';

/**
 * LibreOffice, where the operator switched it on. `scratch`: a folder in memory, never on a disk, for
 * the file is clear there. `hidden`: what it must not read: keys, content, the product itself.
 */
export type Office = {
  readonly program: string;
  readonly scratch: string;
  readonly hidden: readonly string[];
};

/** Kinds whose pages it makes; sheets stay ours, which do not cut a wide one into strips. */
const EXTENSIONS: Partial<Record<MediaType, string>> = {
  'application/vnd.openxmlformats-officedocument.wordprocessingml.document': 'docx',
  'application/vnd.openxmlformats-officedocument.presentationml.presentation': 'pptx',
};

/** No macro runs, nothing is fetched and no link is followed, whatever a file says. */
const SETTINGS: readonly (readonly [where: string, name: string, value: string])[] = [
  ['org.openoffice.Office.Common/Security/Scripting', 'MacroSecurityLevel', '3'],
  ['org.openoffice.Office.Common/Security/Scripting', 'DisableMacrosExecution', 'true'],
  ['org.openoffice.Office.Common/Security/Scripting', 'BlockUntrustedRefererLinks', 'true'],
  ['org.openoffice.Office.Common/Security/Scripting', 'DisableActiveContent', 'true'],
  ['org.openoffice.Office.Writer/Content/Update', 'Link', '2'],
  ['org.openoffice.Office.Calc/Content/Update', 'Link', '1'],
];

function settingsFile(): string {
  const items = SETTINGS.map(
    ([where, name, value]) =>
      `<item oor:path="/${where}"><prop oor:name="${name}" oor:op="fuse"><value>${value}</value></prop></item>`,
  );
  return (
    '<?xml version="1.0" encoding="UTF-8"?>\n' +
    '<oor:items xmlns:oor="http://openoffice.org/2001/registry">' +
    `${items.join('')}</oor:items>`
  );
}

/** Whether the pages of such a file are made by it. */
export function isOfficeKind(mediaType: MediaType): boolean {
  return EXTENSIONS[mediaType] !== undefined;
}

function ended(command: string, args: readonly string[], folder: string): Promise<number | null> {
  return new Promise((resolve) => {
    const child = spawn(command, [...args], {
      cwd: folder,
      stdio: 'ignore',
      // Nothing of this process's own surroundings is told to it.
      env: {
        NODE_ENV: 'production',
        PATH: '/usr/bin:/bin',
        HOME: folder,
        TMPDIR: folder,
        LANG: 'C.UTF-8',
        SAL_USE_VCLPLUGIN: 'svp',
      },
    });
    child.on('error', () => {
      resolve(null);
    });
    child.on('close', resolve);
  });
}

/**
 * The pages of a file, as a PDF, made by LibreOffice in a process of its own, bounded in time and
 * memory and without a network. The file is clear in memory meanwhile, and gone afterwards.
 *
 * @throws ContentError where it unpacks too far, or no pages came of it
 */
export async function officePages(
  { program, scratch, hidden }: Office,
  mediaType: MediaType,
  bytes: Uint8Array,
): Promise<Uint8Array> {
  const extension = EXTENSIONS[mediaType];
  if (extension === undefined) throw new ContentError('NO_SUCH_PAGE');
  needSmallArchive(bytes);
  const folder = await mkdtemp(path.join(scratch, 'embargo-office-'));
  try {
    const user = path.join(folder, 'profile', 'user');
    await mkdir(user, { recursive: true });
    await writeFile(path.join(user, 'registrymodifications.xcu'), settingsFile());
    const file = path.join(folder, `file.${extension}`);
    await writeFile(file, bytes, { mode: 0o600 });
    const { command, args } = confined(hidden, program, [
      `-env:UserInstallation=${pathToFileURL(path.join(folder, 'profile')).href}`,
      '--headless',
      '--norestore',
      '--nolockcheck',
      '--convert-to',
      'pdf',
      '--outdir',
      folder,
      file,
    ]);
    await ended(command, args, folder);
    const made = path.join(folder, 'file.pdf');
    // It says that all went well whatever went wrong.
    const size = await stat(made).then(
      (found) => found.size,
      () => 0,
    );
    if (size === 0) throw new ContentError('FILE_TOO_DEMANDING');
    return new Uint8Array(await readFile(made));
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

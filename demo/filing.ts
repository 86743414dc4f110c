import type { DocumentId, FolderId, MarkingId } from '@/core/base/ids';
import { DEFAULT_WATERMARK, newLayer } from '@/core/watermark/layers';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { fileDocuments } from '@/server/services/filing/file-documents';
import { NO_LIMITS } from '@/core/policy/ceiling';
import { NO_DEFAULTS } from '@/core/policy/defaults';
import { putCeiling } from '@/server/services/policy/manage-ceilings';
import { putDefaults } from '@/server/services/policy/manage-defaults';
import { putRule } from '@/server/services/policy/manage-rules';
import { putTerms } from '@/server/services/access/change-saved-terms';
import { makeFolder, putMarking } from '@/server/services/filing/manage-filing';

const markings = [
  { name: 'For anybody', meaning: 'Harmless in any hands: brochures, indexes, photographs.' },
  { name: 'Partners only', meaning: 'For those who work on the ship with us, and nobody beyond.' },
  {
    name: 'Bidders',
    meaning: 'For yards that bid, until the round closes.',
    mailWords:
      'Tender papers: use them for your bid alone, and ask before you show them to a supplier.',
  },
  { name: 'Until announced', meaning: 'Nothing of it is public before the launch is.' },
] as const;

const folders = [
  'Tender',
  'Hull and structure',
  'Machinery and electrical',
  'Safety and outfit',
  'Photographs',
] as const;

/** Where a paper sits and how it is marked, by the code in its reference. */
function placeOf(reference: string): {
  readonly folder: (typeof folders)[number];
  readonly marking: (typeof markings)[number]['name'];
} {
  const code = reference.split('-')[2] ?? '';
  if (['LP', 'GA', 'SP', 'TS', 'WL'].includes(code))
    return { folder: 'Tender', marking: code === 'GA' ? 'Until announced' : 'Bidders' };
  if (code === 'PH') return { folder: 'Photographs', marking: 'For anybody' };
  if (['ER', 'SH', 'PR', 'PP', 'EL', 'BR', 'VE'].includes(code))
    return { folder: 'Machinery and electrical', marking: 'Partners only' };
  if (['FR', 'LS', 'AN', 'PA', 'NO', 'DK'].includes(code))
    return { folder: 'Safety and outfit', marking: 'Partners only' };
  return { folder: 'Hull and structure', marking: 'Partners only' };
}

/** Folders, markings, ceilings, defaults and saved terms of the office, and every paper in its place. */
export async function fileEverything(
  deps: Deps,
  ida: StaffActor,
  deputy: StaffActor['id'],
  documents: ReadonlyMap<string, DocumentId>,
): Promise<void> {
  const { id: hull } = await makeFolder(deps, ida, { name: 'Hull 412', parentId: null });
  await makeFolder(deps, ida, { name: 'Office', parentId: null });
  const folderIds = new Map<string, FolderId>();
  for (const name of folders)
    folderIds.set(name, (await makeFolder(deps, ida, { name, parentId: hull })).id);
  const markingIds = new Map<string, MarkingId>();
  for (const marking of markings)
    markingIds.set(marking.name, (await putMarking(deps, ida, { id: null, ...marking })).id);
  await putTerms(deps, ida, {
    id: null,
    name: 'Bidders, three weeks',
    rights: ['read', 'print'],
    prints: 2,
    days: 21,
    watermark: DEFAULT_WATERMARK,
  });
  await putTerms(deps, ida, {
    id: null,
    name: 'To look at only, a week',
    rights: ['read'],
    prints: null,
    days: 7,
    watermark: DEFAULT_WATERMARK,
  });
  await putTerms(deps, ida, {
    id: null,
    name: 'Partners, with copying',
    rights: ['read', 'copy', 'print'],
    prints: null,
    days: 90,
    watermark: [
      newLayer('tiled', '{organisation} · {name} · {date}'),
      newLayer('footer', '{reference} · {version} · page {page}'),
    ],
  });
  await putCeiling(deps, ida, {
    level: 'organisation',
    subject: '',
    limits: { ...NO_LIMITS, days: 365 },
    seen: null,
  });
  await putCeiling(deps, ida, {
    level: 'marking',
    subject: markingIds.get('Until announced') ?? '',
    limits: { ...NO_LIMITS, prints: 3, days: 120 },
    seen: null,
  });
  await putCeiling(deps, ida, {
    level: 'folder',
    subject: hull,
    limits: { ...NO_LIMITS, rights: ['read', 'comment', 'copy', 'print', 'pass-on'] },
    seen: null,
  });
  await putDefaults(deps, ida, {
    level: 'organisation',
    subject: '',
    defaults: { ...NO_DEFAULTS, rights: ['read'], days: 30 },
    watermark: [],
    seen: null,
  });
  await putDefaults(deps, ida, {
    level: 'marking',
    subject: markingIds.get('Bidders') ?? '',
    defaults: { rights: ['read', 'print'], days: 21, prints: 2 },
    watermark: [newLayer('header', 'Tender, for bidders')],
    seen: null,
  });
  await putDefaults(deps, ida, {
    level: 'marking',
    subject: markingIds.get('Until announced') ?? '',
    defaults: { ...NO_DEFAULTS, days: 14 },
    watermark: [
      {
        ...newLayer('corner', 'Not public before the launch · {reference}'),
        colour: 'magenta',
        corner: 'top-right',
      },
    ],
    seen: null,
  });
  await putRule(deps, ida, {
    way: 'unprotected',
    leave: 'forbidden',
    reason: 'what leaves this office leaves protected',
    seen: null,
  });
  await putRule(deps, ida, {
    way: 'open-link',
    leave: 'agreed',
    reason: 'nobody should open a document to everybody alone',
    seen: null,
  });
  for (const [reference, id] of documents) {
    const { folder, marking } = placeOf(reference);
    await fileDocuments(deps, ida, {
      documents: [id],
      folderId: folderIds.get(folder) ?? null,
      markingId: markingIds.get(marking) ?? null,
      ...(folder === 'Tender' ? { deputyId: deputy } : {}),
      attributes: { project: 'Hull 412', ...(folder === 'Tender' ? { round: '1' } : {}) },
    });
  }
}

import 'server-only';
import { isSameWatermark } from '@/core/watermark/layers';
import type { DocumentId } from '@/core/base/ids';
import {
  NO_DEFAULTS,
  commonDefaults,
  resolveDefaults,
  setsAnything,
  watermarkUnder,
  type Begun,
  type LevelDefaults,
} from '@/core/policy/defaults';
import { idleDefaults } from '@/core/policy/idle-limits';
import { reaching, type Standing } from '@/core/policy/levels';
import type {
  DefaultsChanged,
  DefaultsImpact,
  DefaultsInput,
  DefaultsRow,
} from '@/contracts/defaults';
import type { Reading, Transaction } from '@/server/db/database';
import { folderParents, listCeilings } from '@/server/repositories/policy/ceiling-repository';
import {
  listDefaults,
  putDefaultsRow,
  removeDefaultsRow,
} from '@/server/repositories/policy/defaults-repository';
import { findDocuments } from '@/server/repositories/documents/document-repository';
import { namesOfStaff } from '@/server/repositories/staff/staff-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { impactOf } from '@/server/services/policy/impact';
import { needSubject, sameSubject, subjectNames } from '@/server/services/base/level-subjects';
import { record } from '@/server/services/base/record';

/** What every level sets, with the names of what it belongs to and of who set it. */
export async function viewDefaults(deps: Pick<Deps, 'db'>): Promise<DefaultsRow[]> {
  const all = await listDefaults(deps.db.read);
  const [nameOf, staff] = await Promise.all([
    subjectNames(
      deps.db.read,
      all.filter(({ level }) => level === 'document').map(({ subject }) => subject as DocumentId),
    ),
    namesOfStaff(deps.db.read),
  ]);
  return all.map((row) => ({
    ...row,
    name: nameOf(row) ?? '',
    setBy: staff.get(row.setBy) ?? '',
  }));
}

/** Answers what is set on the levels around a document, outermost first. */
export async function defaultsFinder(
  db: Reading | Transaction,
): Promise<(standing: Standing) => LevelDefaults[]> {
  const [all, parents] = [await listDefaults(db), await folderParents(db)];
  return (standing) => reaching(standing, all, parents);
}

/** What a dispatch of these documents begins with. */
export async function beginningOf(
  deps: Pick<Deps, 'db'>,
  documents: readonly DocumentId[],
): Promise<Begun> {
  const [around, found] = await Promise.all([
    defaultsFinder(deps.db.read),
    findDocuments(deps.db.read, documents),
  ]);
  if (found.length === 0)
    return resolveDefaults(around({ document: '', marking: null, folder: null }));
  return commonDefaults(
    found.map(({ id, markingId, folderId }) =>
      resolveDefaults(around({ document: id, marking: markingId, folder: folderId })),
    ),
  );
}

/**
 * Whom a change of what stands on every page would touch at their next open. What dispatches begin
 * with touches nobody.
 */
export async function previewDefaults(
  deps: Deps,
  actor: StaffActor,
  input: DefaultsInput,
): Promise<DefaultsImpact> {
  await needSubject(deps.db.read, input);
  const now = deps.clock.now();
  const [before, parents] = await Promise.all([
    listDefaults(deps.db.read),
    folderParents(deps.db.read),
  ]);
  const after = [
    ...before.filter((each) => !sameSubject(each, input)),
    { ...input, setBy: actor.id, setAt: now },
  ];
  const marked = [
    ...[...before, ...after].filter(({ watermark }) => watermark.length > 0),
    ...(await listCeilings(deps.db.read)),
  ];
  const asked = {
    filing: marked.some(({ level }) => level === 'marking' || level === 'folder'),
    own: [
      ...new Set(marked.filter(({ level }) => level === 'document').map(({ subject }) => subject)),
    ],
  };
  const ceilings = await listCeilings(deps.db.read);
  const over = (standing: Standing) => reaching(standing, ceilings, parents);
  const watermark = (standing: Standing, all: readonly LevelDefaults[]) =>
    watermarkUnder([], reaching(standing, all, parents));
  const found = await impactOf(deps, now, asked, {
    before: over,
    after: over,
    marks: (standing) => !isSameWatermark(watermark(standing, before), watermark(standing, after)),
  });
  // What reaches everything below this level for certain: the organisation's ceiling, and its own.
  const certain = ceilings.filter(
    (each) => each.level === 'organisation' || sameSubject(each, input),
  );
  return { ...found, idle: idleDefaults(input.defaults, certain) };
}

/** A level that sets nothing. */
const UNSET = { defaults: NO_DEFAULTS, watermark: [], setAt: null };

/**
 * Sets what dispatches below a level begin with and what stands on every page there; nothing: neither.
 *
 * @returns what it was, so that it can be undone by the same means
 * @throws ServiceError `CONFLICT` where somebody set it since it was seen, `NOT_FOUND`
 */
export async function putDefaults(
  deps: Deps,
  actor: StaffActor,
  input: DefaultsInput,
): Promise<DefaultsChanged> {
  const { level, subject, defaults, watermark } = input;
  const now = deps.clock.now();
  return deps.db.write(async (tx) => {
    await needSubject(tx, input);
    const known = (await listDefaults(tx)).find((each) => sameSubject(each, input)) ?? UNSET;
    if (known.setAt !== input.seen) throw new ServiceError('changed-meanwhile');
    const sets = setsAnything(input);
    // Set twice within a millisecond, it would be taken for the one that was seen.
    const setAt = Math.max(now, (known.setAt ?? 0) + 1);
    if (sets)
      await putDefaultsRow(tx, { level, subject, defaults, watermark, setBy: actor.id, setAt });
    else await removeDefaultsRow(tx, level, subject);
    const before = { defaults: known.defaults, watermark: known.watermark };
    await record(deps, tx, {
      action: 'settings.changed',
      outcome: 'done',
      actor: { kind: 'staff', id: actor.id },
      occurredAt: now,
      details: {
        defaults: level,
        subject,
        before: { ...before.defaults, watermark: before.watermark },
        after: sets ? { ...defaults, watermark } : null,
      },
    });
    return { before, setAt: sets ? setAt : null };
  });
}

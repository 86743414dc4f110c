import 'server-only';
import { fileSize } from '@/core/age/chunks';
import { isAppError } from '@/core/base/errors';
import type { VersionId } from '@/core/base/ids';
import {
  damagedTitles,
  danglingRows,
  type Dangling,
  setDamaged,
  versionAfter,
  type StoredVersion,
} from '@/server/repositories/documents/check-repository';
import type { Deps } from '@/server/services/base/deps';
import {
  allSealed,
  payloadKeyOf,
  plainPieces,
  type Sealed,
} from '@/server/services/documents/sealed-source';

type CheckDeps = Pick<Deps, 'db' | 'blobs' | 'vault' | 'clock'>;

/** What is wrong with a stored content; `null`: nothing. */
export type ContentProblem = 'missing' | 'cut' | 'altered' | 'no-key';

/**
 * Reads one stored content through and checks every chunk of it, in memory that does not grow with
 * it. Without its key only its size is checked.
 */
export async function contentProblem(
  deps: Pick<Deps, 'blobs' | 'vault'>,
  version: StoredVersion,
): Promise<ContentProblem | null> {
  for (const sealed of allSealed(version)) {
    const problem = await sealedProblem(deps, version, sealed);
    if (problem !== null) return problem;
  }
  return null;
}

async function sealedProblem(
  deps: Pick<Deps, 'blobs' | 'vault'>,
  { id, wrappedKey, keyGeneration }: StoredVersion,
  sealed: Sealed,
): Promise<ContentProblem | null> {
  const found = await deps.blobs.sizeOf(sealed.blobKey);
  if (found === null) return 'missing';
  if (found !== fileSize(sealed.headerBytes, sealed.plainBytes)) return 'cut';
  if (wrappedKey === null) return null;
  let key: Uint8Array;
  try {
    key = payloadKeyOf(
      deps,
      sealed,
      deps.vault.unwrap({ wrapped: wrappedKey, generation: keyGeneration }, id),
    );
  } catch (error) {
    if (!isAppError(error)) throw error;
    return error.code === 'CANNOT_UNWRAP' ? 'no-key' : 'altered';
  }
  try {
    let read = 0;
    for await (const piece of plainPieces(deps, sealed, key)) read += piece.length;
    return read === sealed.plainBytes ? null : 'cut';
  } catch (error) {
    if (!isAppError(error)) throw error;
    return 'altered';
  }
}

export type Checked = {
  readonly contents: number;
  readonly bytes: number;
  readonly damaged: readonly {
    readonly id: VersionId;
    readonly reference: string;
    readonly title: string;
    readonly problem: ContentProblem;
  }[];
  /** Rows that name something that is not there. */ readonly dangling: readonly Dangling[];
};

/**
 * Reads every stored content through, one after another, and every reference between rows. What is
 * damaged is noted, so that Today and the document say so; what is whole again is noted as well.
 *
 * @param after goes on behind this version: a check that was cut off need not begin anew
 * @param onDone is told which version was checked, and how many
 */
export async function checkContents(
  deps: CheckDeps,
  after: VersionId | null,
  onDone: (id: VersionId, contents: number) => void,
): Promise<Checked> {
  const damaged: Checked['damaged'][number][] = [];
  let [contents, bytes] = [0, 0];
  for (let at = after; ;) {
    const next = await versionAfter(deps.db.read, at);
    if (next === null) break;
    const problem = await contentProblem(deps, next);
    if (problem !== null)
      damaged.push({ id: next.id, reference: next.reference, title: next.title, problem });
    if ((problem === null) !== (next.damagedAt === null))
      await deps.db.write((tx) =>
        setDamaged(tx, next.id, problem === null ? null : deps.clock.now()),
      );
    contents++;
    bytes += next.bytes;
    at = next.id;
    onDone(next.id, contents);
  }
  return { contents, bytes, damaged, dangling: await danglingRows(deps.db.read) };
}

/** Notes that a stored content turned out not to be what was stored. */
export async function noteDamaged(
  deps: Pick<Deps, 'db' | 'clock' | 'health'>,
  id: VersionId,
): Promise<void> {
  await deps.db.write((tx) => setDamaged(tx, id, deps.clock.now()));
  await sayDamagedContents(deps);
}

/** Says on Today which contents are damaged. */
export async function sayDamagedContents({
  db,
  health,
}: Pick<Deps, 'db' | 'health'>): Promise<void> {
  const titles = await damagedTitles(db.read);
  if (titles.length === 0) health.clear('content-damaged');
  else health.raise('content-damaged', titles.join(', '));
}

import 'server-only';
import { newId, type TextId } from '@/core/base/ids';
import type { PutTextInput, SavedTexts } from '@/contracts/saved-texts';
import {
  listSavedTexts,
  putTextRow,
  removeTextRow,
} from '@/server/repositories/dispatching/text-repository';
import { aboutSettings } from '@/server/services/base/about-settings';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';
import { record } from '@/server/services/base/record';

/** Saves a message under a name, for everybody who sends; one of the same name is replaced. */
export async function putText(
  deps: Deps,
  actor: StaffActor,
  input: PutTextInput,
): Promise<SavedTexts> {
  const now = deps.clock.now();
  await deps.db.write(async (tx) => {
    const made = (await listSavedTexts(tx)).every(({ name }) => name !== input.name);
    const id = newId('text', deps.random);
    await putTextRow(tx, { ...input, id, changedBy: actor.id, changedAt: now });
    await record(deps, tx, aboutSettings(actor, now, { savedText: input.name, made }));
  });
  return { texts: await listSavedTexts(deps.db.read) };
}

/** @throws ServiceError `NOT_FOUND` */
export async function removeText(
  deps: Deps,
  actor: StaffActor,
  { id }: { readonly id: TextId },
): Promise<SavedTexts> {
  await deps.db.write(async (tx) => {
    const name = await removeTextRow(tx, id);
    if (name === null) throw new ServiceError('no-text');
    await record(
      deps,
      tx,
      aboutSettings(actor, deps.clock.now(), { savedText: name, removed: name }),
    );
  });
  return { texts: await listSavedTexts(deps.db.read) };
}

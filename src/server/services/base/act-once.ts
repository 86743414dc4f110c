import 'server-only';
import { hasCode } from '@/core/base/errors';
import { SECOND } from '@/core/base/time';
import type { Json } from '@/core/ledger/canonical';
import { answerAct, findAct } from '@/server/repositories/base/act-repository';
import type { Deps } from '@/server/services/base/deps';
import { ServiceError } from '@/server/services/base/errors';

/** How long the same request come twice at once waits for the first one's answer. */
const PATIENCE = 20 * SECOND;
const LOOK_EVERY = 50;

/** Who asks, under which key of their own, and what for. */
export type Asked = { readonly who: string; readonly key: string; readonly what: string };

/**
 * Carries a request out once, however often it comes: the same key is answered with what the first
 * one was answered with.
 *
 * @throws ServiceError `INVALID` where the key was used for something else; AlreadyDone where it
 * was done and what it was answered is not known
 */
export async function actOnce(
  deps: Pick<Deps, 'db' | 'vault' | 'clock'>,
  { who, key: own, what }: Asked,
  work: () => Promise<Json>,
): Promise<Json> {
  const key = deps.vault.mac('request', `${who} ${own}`);
  const asked = deps.vault.mac('request asked', what);
  const before = await findAct(deps.db.read, key);
  if (before !== null) return answerOf(deps, key, asked);
  try {
    const answer = await deps.db.once({ key, asked, now: deps.clock.now() }, work);
    await deps.db.write((tx) => answerAct(tx, key, { answer }));
    return answer;
  } catch (error) {
    if (hasCode(error, 'DONE_BEFORE')) return answerOf(deps, key, asked, error);
    throw error;
  }
}

async function answerOf(
  deps: Pick<Deps, 'db'>,
  key: string,
  asked: string,
  cause?: Error,
): Promise<Json> {
  for (let waited = 0; waited < PATIENCE; waited += LOOK_EVERY) {
    const found = await findAct(deps.db.read, key);
    if (found !== null && found.asked !== asked) throw new ServiceError('act-key-used');
    const answer = found?.answer;
    if (answer !== null && answer !== undefined && typeof answer === 'object' && 'answer' in answer)
      return answer['answer'] ?? null;
    await new Promise((resolve) => {
      setTimeout(resolve, LOOK_EVERY);
    });
  }
  throw cause ?? new ServiceError('done-before');
}

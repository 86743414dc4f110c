import 'server-only';
import { isAppError } from '@/core/base/errors';
import { answerPagePictures } from '@/server/front/before-framework';
import { running } from '@/server/http/running';
import { pagePictureAside } from '@/server/http/page-picture';
import { isSetUp, setUpToken } from '@/server/services/staff/set-up-organisation';

/** Brings the product up before the first request, so that a wrong setting shows at once. */
export async function start(): Promise<void> {
  const container = await runningOrExit();
  container.startBackground();
  answerPagePictures(pagePictureAside);
  if (await isSetUp(container.deps)) return;
  // The console is where the person who runs this server looks; the log may go elsewhere.
  process.stdout.write(
    `\nThis is a new Embargo. Set it up at ${container.deps.publicUrl}/set-up\nSet-up token: ` +
      `${setUpToken(container.deps)}\n\n`,
  );
}

/** A product that cannot run says why in one sentence and ends, so that anyone who watches it sees that it did. */
async function runningOrExit(): ReturnType<typeof running> {
  try {
    return await running();
  } catch (error) {
    if (!isAppError(error)) throw error;
    console.error(error.message);
    process.exit(1);
  }
}

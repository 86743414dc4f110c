import type { CommentsHandedIn } from '@/contracts/comments';
import type { HandedIn, HandInInput } from '@/contracts/own-machine';
import { CallError } from '@/ui/http/call';
import {
  allLicences,
  forgetLicence,
  forgetOpen,
  opensToHandIn,
} from '@/ui/own-machine/kept-licences';
import { forgetComment, keepComment, keptComments } from '@/ui/own-machine/kept-comments';
import { COMMENTS_HANDED_IN } from '@/ui/reader/comments-handed-in';
import { readerCall } from '@/ui/reader/reader-call';

function tell(told: Partial<HandInInput>): Promise<HandedIn> {
  const all: HandInInput = { opens: [], kept: [], forgotten: [], ...told };
  return readerCall<HandedIn>('POST', '/api/v1/reader/offline', all);
}

/** Says that every licence of this browser is about to be forgotten: whoever leaves keeps none. */
export async function giveUpLicences(): Promise<void> {
  const licences = await allLicences();
  if (licences.length > 0) await tell({ forgotten: licences.map(({ licence }) => licence) });
}

/** Hands in the comments that were made without a connection; what cannot be taken stays, to be copied. */
async function handInComments(): Promise<void> {
  const waiting = (await keptComments()).filter(({ isRefused }) => !isRefused);
  for (const comment of waiting) {
    const { id, licence, page, place, text, madeAt } = comment;
    const { comments } = await readerCall<CommentsHandedIn>(
      'POST',
      '/api/v1/reader/offline/comments',
      { comments: [{ id, licence, page, place, text, madeAt }] },
    );
    const put = comments.find((each) => each.id === id);
    // What somebody else wrote in this browser stays until they hand it in themselves.
    if (put?.isTaken === true) await forgetComment(id);
    else if (put !== undefined) await keepComment({ ...comment, isRefused: true });
  }
  if (waiting.length > 0) window.dispatchEvent(new Event(COMMENTS_HANDED_IN));
}

/**
 * Hands in what was read and written without a connection, and forgets the licences that are over. A
 * device that is not accepted any more forgets them all; what was read and written there stays, to be
 * handed in once the address was proven again.
 */
export async function handIn(): Promise<void> {
  const licences = await allLicences();
  const opens = await opensToHandIn();
  // One that is not answered for now is handed in another time, and keeps nothing else from being told.
  await handInComments().catch(() => undefined);
  if (licences.length === 0 && opens.length === 0) return;
  try {
    for (const open of opens) {
      // What somebody else read in this browser stays until they hand it in themselves.
      if ((await tell({ opens: [open] })).taken > 0) await forgetOpen(open);
    }
    const { over } = await tell({ kept: licences.map(({ licence }) => licence) });
    const gone = licences.filter(({ licence }) => over.some((each) => each.licence === licence));
    for (const { version } of gone) await forgetLicence(version);
    if (gone.length > 0) await tell({ forgotten: gone.map(({ licence }) => licence) });
  } catch (error) {
    const isShutOut = error instanceof CallError && error.code === 'NOT_SIGNED_IN';
    if (!isShutOut) throw error;
    for (const { version } of licences) await forgetLicence(version);
  }
}

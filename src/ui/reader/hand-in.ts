import type { HandedIn, HandInInput } from '@/contracts/own-machine';
import { CallError } from '@/ui/http/call';
import {
  allLicences,
  forgetLicence,
  forgetOpen,
  opensToHandIn,
} from '@/ui/own-machine/kept-licences';
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

/**
 * Hands in what was read without a connection, and forgets the licences that are over. A device that
 * is not accepted any more forgets them all; what it read stays, to be handed in once the address was
 * proven again.
 */
export async function handIn(): Promise<void> {
  const licences = await allLicences();
  const opens = await opensToHandIn();
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

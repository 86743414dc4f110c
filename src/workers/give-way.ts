import { readlinkSync } from 'node:fs';
import { constants, platform, setPriority } from 'node:os';

/**
 * Lets this thread give way to the one that decides and answers, where both want the same core: it
 * waits less to hand the next page out. Linux gives each thread a priority of its own; elsewhere
 * nothing is done.
 */
export function giveWay(): void {
  if (platform() !== 'linux') return;
  try {
    const thread = Number(readlinkSync('/proc/thread-self').split('/').at(-1));
    setPriority(thread, constants.priority.PRIORITY_BELOW_NORMAL);
  } catch {
    // A system that shows or allows no such thing draws with the priority it has.
  }
}

import { forgetReader } from '@/ui/own-machine/reader-store';
import { forgetAddress } from '@/ui/reader/last-address';
import { readerCall } from '@/ui/reader/reader-call';
import { forgetViews } from '@/ui/pages/use-page-view';

/** Ends this device, so that another address can be proven; nothing of it stays in this browser. */
export async function leave(): Promise<void> {
  // What was read without a connection is told while this device is still known.
  const { giveUpLicences, handIn } = await import('@/ui/reader/hand-in');
  await handIn()
    .then(giveUpLicences)
    .catch(() => undefined);
  await readerCall('POST', '/api/v1/reader/leave', {}).catch(() => undefined);
  forgetViews();
  forgetAddress();
  await forgetReader().catch(() => undefined);
  window.location.reload();
}

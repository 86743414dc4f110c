import type { OwnRevision } from '@/contracts/own-revision';
import type { LicenceId } from '@/core/base/ids';
import { readerSend } from '@/ui/reader/reader-call';

/** Sends a changed file back. @throws RefusedError, CallError */
export async function sendRevision(
  licence: LicenceId,
  file: File,
  note: string,
): Promise<readonly OwnRevision[]> {
  const about = new URLSearchParams({ name: file.name, note });
  const path = `/api/v1/reader/licences/${licence}/revisions?${about.toString()}`;
  const answer = (await (await readerSend(path, file)).json()) as {
    readonly revisions: readonly OwnRevision[];
  };
  return answer.revisions;
}

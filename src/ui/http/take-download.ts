import { toCallError, unreachable } from '@/ui/http/call';

/** The name a server gave a download (RFC 6266). */
function nameOf(response: Response): string {
  const encoded = /filename\*=UTF-8''([^;]+)/.exec(
    response.headers.get('content-disposition') ?? '',
  )?.[1];
  return encoded === undefined ? 'file' : decodeURIComponent(encoded);
}

/** Hands what was answered to the browser to save, under the name that the server gave it. */
export async function saveAnswer(response: Response): Promise<File> {
  const file = new File([await response.blob()], nameOf(response));
  saveFile(file);
  return file;
}

/** Hands a file to the browser to save. */
export function saveFile(file: File): void {
  const address = URL.createObjectURL(file);
  Object.assign(document.createElement('a'), { href: address, download: file.name }).click();
  // The browser has taken the file over by then.
  setTimeout(() => {
    URL.revokeObjectURL(address);
  }, 60_000);
}

/** Asks for a file by POST and hands it to the browser to save. @throws CallError */
export async function takeDownload(path: string): Promise<void> {
  let response: Response;
  try {
    response = await fetch(path, { method: 'POST' });
  } catch {
    throw unreachable();
  }
  if (!response.ok) throw await toCallError(response);
  await saveAnswer(response);
}

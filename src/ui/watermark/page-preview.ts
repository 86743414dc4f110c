import type { Watermark } from '@/core/watermark/layers';
import { toCallError } from '@/ui/http/call';

type Preview = {
  readonly id: string;
  readonly address: string;
  readonly name: string;
  readonly organisation: string;
  readonly watermark: Watermark;
  /** As it is read, or as it would be printed. */ readonly medium?: 'screen' | 'paper';
  /** Dark: as on a page of light letters. */ readonly ground?: 'light' | 'dark';
  readonly at: number | null;
  readonly network: string | null;
};

/**
 * The first page of a document as somebody would see it.
 *
 * @returns an object address of the picture; the caller revokes it
 * @throws CallError
 */
export async function pagePreview({ id, ...body }: Preview): Promise<string> {
  const response = await fetch(`/api/v1/documents/${id}/preview`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  });
  if (!response.ok) throw await toCallError(response);
  return URL.createObjectURL(await response.blob());
}

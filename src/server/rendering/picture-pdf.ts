import { PDFDocument } from '@cantoo/pdf-lib';
import type { PagePicture } from '@/server/rendering/render-task';

/** A PDF whose pages are JPEG pictures, each of the size in points that its page had. */
export async function picturesToPdf(
  title: string,
  pages: readonly { readonly size: { readonly width: number; readonly height: number }; readonly picture: () => Promise<PagePicture> }[],
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.setTitle(title);
  for (const { size, picture } of pages) {
    const image = await pdf.embedJpg((await picture()).bytes);
    pdf.addPage([size.width, size.height]).drawImage(image, { x: 0, y: 0, ...size });
  }
  return pdf.save();
}

import { newLayer } from '@/core/watermark/layers';
import { shapeLayers } from '@/core/watermark/layout';
import { ownScriptsOnly } from '@/core/watermark/shape';
import { PDFDocument, degrees } from '@cantoo/pdf-lib';
import { describe, expect, test } from 'vitest';
import { keepMarked } from '@/server/rendering/keep-marked';
import { openPdf } from '@/core/pages/pdf-document';
import { loadInstalledPdfium } from '@/server/rendering/load-pdfium';

const pdfium = await loadInstalledPdfium();
const SHAPED = await shapeLayers(
  [newLayer('tiled', 'mira.kolbe@brackwater.example · 25 Nov 2026 · REF-1')],
  ownScriptsOnly,
);

async function sheet(width: number, height: number, turned: number): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.addPage([width, height]).setRotation(degrees(turned));
  return pdf.save();
}

function drawn(bytes: Uint8Array): {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8Array;
} {
  const pdf = openPdf(pdfium, {
    size: bytes.length,
    opened: () => 0,
    read: (at, length) => bytes.subarray(at, Math.min(bytes.length, at + length)),
  });
  const picture = pdf.draw(1, 500);
  pdf.close();
  return picture;
}

const inked = ({ rgba }: { readonly rgba: Uint8Array }): number =>
  rgba.filter((value, i) => i % 4 === 0 && value < 240).length;

describe('a kept copy', () => {
  test('bears the watermark all over', async () => {
    const { bytes, marked } = await keepMarked(await sheet(595, 842, 0), SHAPED);
    expect(marked).toBe(true);
    const { width, height, rgba } = drawn(bytes);
    const pixels = width * height;
    for (const part of [0, 1, 2, 3, 4, 5])
      expect(
        inked({
          rgba: rgba.subarray(
            Math.floor((pixels * part) / 6) * 4,
            Math.floor((pixels * (part + 1)) / 6) * 4,
          ),
        }),
      ).toBeGreaterThan(pixels / 6 / 60);
  });

  test.each([90, 180, 270, -90])(
    'of a page turned by %i° bears it as it is seen, not as the sheet lies',
    async (turned) => {
      const upright = drawn((await keepMarked(await sheet(595, 842, 0), SHAPED)).bytes);
      const [width, height] = turned === 180 ? [595, 842] : [842, 595];
      const seen = drawn((await keepMarked(await sheet(width, height, turned), SHAPED)).bytes);
      expect([seen.width, seen.height]).toEqual([upright.width, upright.height]);
      let different = 0;
      for (let i = 0; i < seen.rgba.length; i += 4)
        if (Math.abs((seen.rgba[i] ?? 0) - (upright.rgba[i] ?? 0)) > 24) different++;
      expect(different).toBeLessThan(inked(upright) / 10);
    },
  );

  test('comes back as it was where there is nothing to draw or the file cannot be rewritten', async () => {
    const plain = await sheet(595, 842, 0);
    expect(await keepMarked(plain, [])).toEqual({ bytes: plain, marked: false });
    const broken = new TextEncoder().encode('%PDF-1.7\nnothing that holds together');
    expect(await keepMarked(broken, SHAPED)).toEqual({ bytes: broken, marked: false });
  });
});

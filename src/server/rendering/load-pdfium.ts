import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { loadPdfium, type Pdfium } from '@/core/pages/pdfium';

/** PDFium from the installed package. */
export function loadInstalledPdfium(): Promise<Pdfium> {
  const file = createRequire(import.meta.url).resolve('@hyzyla/pdfium/pdfium.wasm');
  return loadPdfium(new Uint8Array(readFileSync(file)));
}

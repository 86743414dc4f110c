import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { loadPdfium, type Pdfium } from '@/core/pages/pdfium';

let compiled: WebAssembly.Module | null = null;

/** PDFium's code from the installed package, compiled once for all threads that it is handed to. */
export function compiledPdfium(): WebAssembly.Module {
  if (compiled !== null) return compiled;
  const find = createRequire(import.meta.url);
  // The comment within is for the build, which would take the file for a module to be bundled.
  const file = find.resolve(/* turbopackIgnore: true */ '@hyzyla/pdfium/pdfium.wasm');
  compiled = new WebAssembly.Module(readFileSync(file));
  return compiled;
}

/** PDFium from the installed package. */
export function loadInstalledPdfium(): Promise<Pdfium> {
  return loadPdfium(compiledPdfium());
}

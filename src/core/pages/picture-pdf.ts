/** A picture as JPEG, and the size in points that its page has on paper. */
export type Sheet = {
  readonly bytes: Uint8Array;
  readonly width: number;
  readonly height: number;
  readonly size: { readonly width: number; readonly height: number };
};

/** Width of a printed page in px: about 150 dots an inch on A4. */
export const PRINT_WIDTH = 1240;

/** Objects of every such file; those of pages follow, three each. */
const CATALOG = 1;
const PAGES = 2;
const INFO = 3;
const FIRST = 4;
const EACH = 3;

function points(value: number): string {
  return String(Math.round(value * 100) / 100);
}

/** A text string in UTF-16 (ISO 32000-2, 7.9.2.2), as hexadecimal digits. */
function textString(text: string): string {
  const units = Array.from({ length: text.length }, (_each, i) => text.charCodeAt(i));
  return `<FEFF${units.map((unit) => unit.toString(16).padStart(4, '0')).join('')}>`;
}

/**
 * A PDF whose pages are JPEG pictures, each of the size in points that its page had, written while
 * they come: however many pages, one of them is in memory.
 */
export async function* picturesToPdf(
  title: string,
  pages: AsyncIterable<Sheet>,
): AsyncGenerator<Uint8Array, void> {
  const offsets: number[] = [];
  let at = 0;
  const piece = (bytes: Uint8Array): Uint8Array => {
    at += bytes.length;
    return bytes;
  };
  const text = (written: string): Uint8Array =>
    piece(Uint8Array.from(written, (letter) => letter.charCodeAt(0)));
  const object = (id: number, body: string): Uint8Array => {
    offsets[id] = at;
    return text(`${String(id)} 0 obj\n${body}\nendobj\n`);
  };
  yield text('%PDF-1.7\n%\u00e2\u00e3\u00cf\u00d3\n');
  yield object(CATALOG, `<< /Type /Catalog /Pages ${String(PAGES)} 0 R >>`);
  yield object(INFO, `<< /Title ${textString(title)} >>`);
  const kids: string[] = [];
  for await (const { bytes, width, height, size } of pages) {
    const page = FIRST + kids.length * EACH;
    const [w, h] = [points(size.width), points(size.height)];
    const drawing = `q ${w} 0 0 ${h} 0 0 cm /P Do Q`;
    kids.push(`${String(page)} 0 R`);
    yield object(
      page,
      `<< /Type /Page /Parent ${String(PAGES)} 0 R /MediaBox [0 0 ${w} ${h}] /Resources << ` +
        `/XObject << /P ${String(page + 1)} 0 R >> >> /Contents ${String(page + 2)} 0 R >>`,
    );
    offsets[page + 1] = at;
    yield text(
      `${String(page + 1)} 0 obj\n<< /Type /XObject /Subtype /Image /Width ${String(width)} ` +
        `/Height ${String(height)} /ColorSpace /DeviceRGB /BitsPerComponent 8 /Filter ` +
        `/DCTDecode /Length ${String(bytes.length)} >>\nstream\n`,
    );
    yield piece(bytes);
    yield text('\nendstream\nendobj\n');
    yield object(
      page + 2,
      `<< /Length ${String(drawing.length)} >>\nstream\n${drawing}\nendstream`,
    );
  }
  yield object(PAGES, `<< /Type /Pages /Count ${String(kids.length)} /Kids [${kids.join(' ')}] >>`);
  const begins = at;
  const rows = Array.from(
    { length: offsets.length - 1 },
    (_, i) => `${String(offsets[i + 1] ?? 0).padStart(10, '0')} 00000 n \n`,
  ).join('');
  yield text(
    `xref\n0 ${String(offsets.length)}\n0000000000 65535 f \n${rows}trailer\n<< /Size ` +
      `${String(offsets.length)} /Root ${String(CATALOG)} 0 R /Info ${String(INFO)} 0 R ` +
      `>>\nstartxref\n${String(begins)}\n%%EOF\n`,
  );
}

// A Word file, made from its parts.
import JSZip from 'jszip';

const HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>';
const WORD = 'http://schemas.openxmlformats.org/wordprocessingml/2006/main';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006';
const RELATIONS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';

const TYPES = 'application/vnd.openxmlformats';

function override(part: string, type: string): string {
  const kind = `${TYPES}-officedocument.wordprocessingml.${type}+xml`;
  return `<Override PartName="/word/${part}.xml" ContentType="${kind}"/>`;
}

function relation(type: string, target: string): string {
  return (
    `${HEAD}<Relationships xmlns="${PACKAGE}/relationships">` +
    `<Relationship Id="rId1" Type="${RELATIONS}/${type}" Target="${target}"/></Relationships>`
  );
}

function escaped(text: string): string {
  return text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;');
}

/** A paragraph; `style` may be that of a heading. */
export function wordParagraph(text: string, style?: string): string {
  const properties = style === undefined ? '' : `<w:pPr><w:pStyle w:val="${style}"/></w:pPr>`;
  return `<w:p>${properties}<w:r><w:t xml:space="preserve">${escaped(text)}</w:t></w:r></w:p>`;
}

export function wordTable(rows: readonly (readonly string[])[]): string {
  const cells = (row: readonly string[]): string =>
    row.map((text) => `<w:tc>${wordParagraph(text)}</w:tc>`).join('');
  return `<w:tbl>${rows.map((row) => `<w:tr>${cells(row)}</w:tr>`).join('')}</w:tbl>`;
}

/** A Word file (ISO/IEC 29500-1, 11.3.10) whose body is these paragraphs and tables. */
export async function wordFile(
  body: readonly string[],
  more: Readonly<Record<string, string | Uint8Array>> = {},
): Promise<Uint8Array> {
  const zip = new JSZip();
  zip.file(
    '[Content_Types].xml',
    `${HEAD}<Types xmlns="${PACKAGE}/content-types">` +
      `<Default Extension="rels" ContentType="${TYPES}-package.relationships+xml"/>` +
      `<Default Extension="xml" ContentType="application/xml"/>` +
      override('document', 'document.main') +
      override('styles', 'styles') +
      '</Types>',
  );
  zip.file('_rels/.rels', relation('officeDocument', 'word/document.xml'));
  zip.file('word/_rels/document.xml.rels', relation('styles', 'styles.xml'));
  const styles = [1, 2, 3]
    .map(
      (n) =>
        `<w:style w:type="paragraph" w:styleId="Heading${String(n)}"><w:name w:val="heading ${String(n)}"/></w:style>`,
    )
    .join('');
  zip.file('word/styles.xml', `${HEAD}<w:styles xmlns:w="${WORD}">${styles}</w:styles>`);
  zip.file(
    'word/document.xml',
    `${HEAD}<w:document xmlns:w="${WORD}" xmlns:r="${RELATIONS}"><w:body>${body.join('')}</w:body></w:document>`,
  );
  for (const [name, content] of Object.entries(more)) zip.file(name, content);
  return zip.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
}

// A PowerPoint file, made from its parts.
import JSZip from 'jszip';

const P = 'http://schemas.openxmlformats.org/presentationml/2006/main';
const A = 'http://schemas.openxmlformats.org/drawingml/2006/main';
const R = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006/relationships';
const EMU = 12_700;

const spaces = `xmlns:p="${P}" xmlns:a="${A}" xmlns:r="${R}"`;

function frame(left: number, top: number, width: number, height: number): string {
  const [x, y, cx, cy] = [left, top, width, height].map((each) => String(each * EMU));
  return `<a:off x="${x ?? ''}" y="${y ?? ''}"/><a:ext cx="${cx ?? ''}" cy="${cy ?? ''}"/>`;
}

/** A text at a place in points, or where the layout puts one of this type. */
export function slideText(text: string, where: readonly number[] | string): string {
  const [left = 0, top = 0, width = 0, height = 0] = typeof where === 'string' ? [] : where;
  const holder = typeof where === 'string' ? `<p:ph type="${where}"/>` : '';
  const place =
    typeof where === 'string' ? '' : `<a:xfrm>${frame(left, top, width, height)}</a:xfrm>`;
  return (
    `<p:sp><p:nvSpPr><p:nvPr>${holder}</p:nvPr></p:nvSpPr><p:spPr>${place}</p:spPr>` +
    `<p:txBody><a:p><a:r><a:t>${text}</a:t></a:r></a:p></p:txBody></p:sp>`
  );
}

/** A table of two cells at the bottom of a slide. */
export function slideTable(left: string, right: string): string {
  const cell = (text: string): string =>
    `<a:tc><a:txBody><a:p><a:r><a:t>${text}</a:t></a:r></a:p></a:txBody></a:tc>`;
  return (
    `<p:graphicFrame><p:xfrm>${frame(40, 380, 400, 60)}</p:xfrm><a:graphic><a:graphicData>` +
    `<a:tbl><a:tr>${cell(left)}${cell(right)}</a:tr></a:tbl></a:graphicData></a:graphic></p:graphicFrame>`
  );
}

/** The picture of the file, at a place in points. */
export function slidePicture(left: number, top: number, width: number, height: number): string {
  return (
    `<p:pic><p:blipFill><a:blip r:embed="rId2"/></p:blipFill><p:spPr>` +
    `<a:xfrm>${frame(left, top, width, height)}</a:xfrm></p:spPr></p:pic>`
  );
}

function relations(entries: readonly (readonly [id: string, target: string])[]): string {
  const each = entries.map(([id, target]) => {
    const outside = target.startsWith('http') ? ' TargetMode="External"' : '';
    return `<Relationship Id="${id}" Type="${R}/any" Target="${target}"${outside}/>`;
  });
  return `<Relationships xmlns="${PACKAGE}">${each.join('')}</Relationships>`;
}

/** Slides of 960 by 540 points; those told so are hidden. */
export async function slideFile(
  slides: readonly { readonly items: readonly string[]; readonly isHidden?: true }[],
  picture: Uint8Array | string,
): Promise<Uint8Array> {
  const zip = new JSZip();
  const ids = slides.map(
    (_slide, i) => `<p:sldId id="${String(256 + i)}" r:id="rId${String(i + 1)}"/>`,
  );
  zip.file(
    'ppt/presentation.xml',
    `<p:presentation ${spaces}><p:sldIdLst>${ids.join('')}</p:sldIdLst>` +
      `<p:sldSz cx="${String(960 * EMU)}" cy="${String(540 * EMU)}"/></p:presentation>`,
  );
  zip.file(
    'ppt/_rels/presentation.xml.rels',
    relations(
      slides.map((_slide, i) => [`rId${String(i + 1)}`, `slides/slide${String(i + 1)}.xml`]),
    ),
  );
  zip.file(
    'ppt/slideLayouts/slideLayout1.xml',
    `<p:sldLayout ${spaces}><p:cSld><p:spTree>${slideText('Click here', [60, 40, 800, 80]).replace(
      '<p:nvPr></p:nvPr>',
      '<p:nvPr><p:ph type="title"/></p:nvPr>',
    )}</p:spTree></p:cSld></p:sldLayout>`,
  );
  slides.forEach(({ items, isHidden }, i) => {
    const name = `slide${String(i + 1)}.xml`;
    const show = isHidden === true ? ' show="0"' : '';
    zip.file(
      `ppt/slides/${name}`,
      `<p:sld ${spaces}${show}><p:cSld><p:spTree>${items.join('')}</p:spTree></p:cSld></p:sld>`,
    );
    zip.file(
      `ppt/slides/_rels/${name}.rels`,
      relations([
        ['rId1', '../slideLayouts/slideLayout1.xml'],
        ['rId2', typeof picture === 'string' ? picture : '../media/image1.png'],
      ]),
    );
  });
  if (typeof picture !== 'string') zip.file('ppt/media/image1.png', picture);
  return zip.generateAsync({ type: 'uint8array', compression: 'DEFLATE' });
}

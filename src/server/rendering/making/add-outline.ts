import { PDFHexString, PDFName, PDFNull, PDFNumber, type PDFDocument } from '@cantoo/pdf-lib';

/** Gives a document an outline of one level (ISO 32000-2, 12.3.3). @param entries with pages counted from 0 */
export function addOutline(
  document: PDFDocument,
  entries: readonly { readonly title: string; readonly page: number }[],
): void {
  const { context } = document;
  const root = context.nextRef();
  const refs = entries.map(() => context.nextRef());
  entries.forEach(({ title, page }, i) => {
    const ref = refs[i];
    const target = document.getPage(page).ref;
    const [before, after] = [refs[i - 1], refs[i + 1]];
    if (ref === undefined) return;
    context.assign(
      ref,
      context.obj({
        Title: PDFHexString.fromText(title),
        Parent: root,
        Dest: [target, PDFName.of('XYZ'), PDFNull, PDFNull, PDFNull],
        ...(before === undefined ? {} : { Prev: before }),
        ...(after === undefined ? {} : { Next: after }),
      }),
    );
  });
  const [first, last] = [refs[0], refs.at(-1)];
  if (first === undefined || last === undefined) return;
  context.assign(
    root,
    context.obj({ Type: 'Outlines', First: first, Last: last, Count: PDFNumber.of(refs.length) }),
  );
  document.catalog.set(PDFName.of('Outlines'), root);
}

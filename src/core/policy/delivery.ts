import { extensionOf, type MediaType } from '@/core/content/media-types';
import { underCeilings, type Ceiling } from '@/core/policy/ceiling';
import type { Terms } from '@/core/policy/rights';

/**
 * What a recipient is handed: a link to hosted pages, the document in a protected file, both, or
 * the document in the clear.
 */
export const DELIVERY_FORMS = ['link', 'file', 'both', 'unprotected'] as const;
export type DeliveryForm = (typeof DELIVERY_FORMS)[number];

/** How what is handed over gets to its addressees: mailed by us, or by the sender. */
export const DELIVERIES = ['mail', 'by-hand'] as const;
export type Delivery = (typeof DELIVERIES)[number];

/** What each form hands over. */
const HANDED_OVER: Readonly<
  Record<DeliveryForm, { readonly link: boolean; readonly file: 'protected' | 'clear' | null }>
> = {
  link: { link: true, file: null },
  file: { link: false, file: 'protected' },
  both: { link: true, file: 'protected' },
  unprotected: { link: false, file: 'clear' },
};

/** Whether this form hands over a link to hosted pages. */
export function carriesLink(form: DeliveryForm): boolean {
  return HANDED_OVER[form].link;
}

/** Whether this form hands over protected files. */
export function carriesFile(form: DeliveryForm): boolean {
  return HANDED_OVER[form].file === 'protected';
}

/** Whether this form hands documents over as they are: nothing can be taken back. */
export function isInTheClear(form: DeliveryForm): boolean {
  return HANDED_OVER[form].file === 'clear';
}

/** What goes out unprotected can be used without limits, whatever is written down: so much is written down. */
export const IN_THE_CLEAR = {
  rights: ['read' as const, 'copy' as const, 'print' as const, 'keep' as const],
  from: null,
  until: null,
  prints: null,
} satisfies Terms;

/**
 * The ceiling that forbids handing a document over in the clear, since nobody may keep a copy under
 * it; `null` where none does.
 */
export function keepForbiddenBy(ceilings: readonly Ceiling[]): Ceiling | null {
  const { taken, terms, origins } = underCeilings(IN_THE_CLEAR, 0, ceilings);
  const taker = IN_THE_CLEAR.rights
    .map((right) => taken.get(right))
    .find((ceiling) => ceiling !== undefined);
  if (taker !== undefined) return taker;
  return terms.prints !== null && origins.prints.from === 'ceiling' ? origins.prints.ceiling : null;
}

/** What the file is called where it is handed over in the clear. */
export function clearFileName(
  { reference, title }: { readonly reference: string; readonly title: string },
  file: { readonly mediaType: MediaType; readonly fileName: string },
): string {
  return `${fileName(`${reference} ${title}`)}${extensionOf(file.mediaType, file.fileName)}`;
}

/** A name that every file system takes, without ends that one would cut. */
function fileName(text: string): string {
  return text
    .replaceAll(/[\u0000-\u001f<>:"/\\|?*]+/g, ' ')
    .replaceAll(/\s+/g, ' ')
    .replaceAll(/^[. ]+|[. ]+$/g, '')
    .slice(0, 120);
}

/** What a protected file is called: `<reference> <title> - for <organisation>.pdf`. */
export function protectedFileName({
  reference,
  title,
  organisation,
}: {
  readonly reference: string;
  readonly title: string | null;
  readonly organisation: string;
}): string {
  return `${fileName(title === null ? reference : `${reference} ${title}`)} - for ${fileName(organisation)}.pdf`;
}

/** What the age file inside is called. */
export function payloadName(reference: string): string {
  return `${fileName(reference)}.age`;
}

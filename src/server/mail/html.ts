import type { Language } from '@/core/base/languages';
import { formatted, type Block, type Run } from '@/core/message/formatted';

/** A part of a message: plain words, a note that its sender formatted, or the link it is about. */
export type MailPart =
  | string
  | { readonly note: string }
  | { readonly link: string; /** What one does by it. */ readonly label: string };

const STYLE = 'font-family:Verdana,Geneva,sans-serif;font-size:15px;line-height:1.5';

export function escapeHtml(text: string): string {
  return text
    .replaceAll('&', '&amp;')
    .replaceAll('<', '&lt;')
    .replaceAll('>', '&gt;')
    .replaceAll('"', '&quot;');
}

function link(href: string): string {
  return `<a href="${href}">${href}</a>`;
}

/** Plain words as paragraphs, their links as links. */
function plainHtml(text: string): string {
  return escapeHtml(text)
    .replaceAll(/https?:\/\/[^\s<]+/g, link)
    .split(/\n{2,}/)
    .map((paragraph) => `<p>${paragraph.replaceAll('\n', '<br>')}</p>`)
    .join('');
}

function runHtml({ text, bold, italic, href }: Run): string {
  if (href !== undefined) return link(escapeHtml(href));
  const words = escapeHtml(text);
  if (bold === true) return `<strong>${words}</strong>`;
  return italic === true ? `<em>${words}</em>` : words;
}

function blockHtml({ kind, lines }: Block): string {
  const each = lines.map((runs) => runs.map(runHtml).join(''));
  return kind === 'list'
    ? `<ul>${each.map((line) => `<li>${line}</li>`).join('')}</ul>`
    : `<p>${each.join('<br>')}</p>`;
}

/** A link to press, and below it where it leads: whoever looks twice sees it before they follow it. */
function linkHtml(href: string, label: string): string {
  const [address, words] = [escapeHtml(href), escapeHtml(label)];
  const press =
    'display:inline-block;padding:10px 18px;background:#0f2b3c;color:#ffffff;font-weight:bold;text-decoration:none';
  return (
    `<p><a href="${address}" style="${press}">${words}</a></p>` +
    `<p style="font-size:13px;word-break:break-all">${link(address)}</p>`
  );
}

function partHtml(part: MailPart): string {
  if (typeof part === 'string') return plainHtml(part);
  if ('link' in part) return linkHtml(part.link, part.label);
  return `<div dir="auto">${formatted(part.note).map(blockHtml).join('')}</div>`;
}

/** A message as HTML, with nothing in it that a mail program would have to fetch. */
export function mailHtml(parts: readonly MailPart[], language?: Language): string {
  const lang = language === undefined ? '' : ` lang="${language}"`;
  return `<div${lang} style="${STYLE}">${parts.map(partHtml).join('')}</div>`;
}

/** What a part says without any form: a note stands as it was written. */
export function partText(part: MailPart): string {
  if (typeof part === 'string') return part;
  return 'link' in part ? part.link : part.note;
}

/** The same as plain text. */
export function mailText(parts: readonly MailPart[]): string {
  return parts.map(partText).join('\n\n');
}

import { formatted, type Block, type Run } from '@/core/message/formatted';

/** A part of a message: plain words, or a note that its sender formatted. */
export type MailPart = string | { readonly note: string };

const STYLE = 'font-family:sans-serif;font-size:15px;line-height:1.5';

function escapeHtml(text: string): string {
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

/** A message as HTML, with nothing in it that a mail program would have to fetch. */
export function mailHtml(parts: readonly MailPart[]): string {
  const html = parts.map((part) =>
    typeof part === 'string' ? plainHtml(part) : formatted(part.note).map(blockHtml).join(''),
  );
  return `<div style="${STYLE}">${html.join('')}</div>`;
}

/** The same as plain text: a note stands as it was written. */
export function mailText(parts: readonly MailPart[]): string {
  return parts.map((part) => (typeof part === 'string' ? part : part.note)).join('\n\n');
}

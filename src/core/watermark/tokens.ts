/** What a watermark can say about the open it stands on. */
const TOKENS = ['name', 'address', 'organisation', 'date', 'time', 'network', 'reference'] as const;
type Token = (typeof TOKENS)[number];
export type TokenValues = Readonly<Record<Token, string>>;

/** The watermark offered first; each organisation can write its own. */
export const DEFAULT_WATERMARK = '{address} · {date} {time} · {network} · {reference}';

/** The longest watermark text accepted, in characters, tokens as written. */
export const MAX_WATERMARK = 200;

const token = /\{([^{}]*)\}/g;

function isToken(text: string): text is Token {
  return (TOKENS as readonly string[]).includes(text);
}

/** The names in braces that are no tokens, in order, so that a form can point at them. */
export function unknownTokens(text: string): string[] {
  return Array.from(text.matchAll(token), ([, name = '']) => name).filter((name) => !isToken(name));
}

/** The text with every token filled in; an unknown one stays as written. */
export function fillTokens(text: string, values: TokenValues): string {
  return text.replaceAll(token, (whole, name: string) => (isToken(name) ? values[name] : whole));
}

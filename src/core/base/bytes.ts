/** The parts, one after another, in a new array. */
export function concatBytes(...parts: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}

/** Whether two byte arrays are equal, in time that depends on their lengths alone. */
export function equalBytes(a: Uint8Array, b: Uint8Array): boolean {
  if (a.length !== b.length) return false;
  let difference = 0;
  for (let i = 0; i < a.length; i++) difference |= (a[i] ?? 0) ^ (b[i] ?? 0);
  return difference === 0;
}

const encoder = new TextEncoder();
const decoder = new TextDecoder();

/** Text as UTF-8. */
export function utf8(text: string): Uint8Array {
  return encoder.encode(text);
}

/** UTF-8 as text; ill-formed sequences become U+FFFD. */
export function fromUtf8(bytes: Uint8Array): string {
  return decoder.decode(bytes);
}

/** Bytes as text, one character a byte, so that positions in the text are positions in the bytes. */
export function latin1(bytes: Uint8Array): string {
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  return text;
}

/** Text of characters up to U+00FF, one byte each. */
export function fromLatin1(text: string): Uint8Array {
  return Uint8Array.from(text, (character) => character.charCodeAt(0));
}

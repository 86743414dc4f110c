/** The parts of a typed list, however they are separated; `null`: there are none. */
export function listIn(text: string): string[] | null {
  const parts = text.split(/[\s,;]+/).filter((part) => part !== '');
  return parts.length === 0 ? null : parts;
}

/** `a`, `a and b`, `a, b and c`. */
export function listed(parts: readonly string[]): string {
  return parts.length < 2
    ? parts.join('')
    : `${parts.slice(0, -1).join(', ')} and ${parts.at(-1) ?? ''}`;
}

/** The parts of a typed list, however they are separated; `null`: there are none. */
export function listIn(text: string): string[] | null {
  const parts = text.split(/[\s,;]+/).filter((part) => part !== '');
  return parts.length === 0 ? null : parts;
}

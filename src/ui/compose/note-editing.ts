/** A text that was edited, with what is selected in it then. */
export type Edited = { readonly text: string; readonly from: number; readonly to: number };

/** Puts a sign before and after what is selected, or takes it away where it stands there. */
export function insertAround(text: string, from: number, to: number, sign: string): Edited {
  const [before, within, after] = [text.slice(0, from), text.slice(from, to), text.slice(to)];
  if (before.endsWith(sign) && after.startsWith(sign))
    return {
      text: before.slice(0, -sign.length) + within + after.slice(sign.length),
      from: from - sign.length,
      to: to - sign.length,
    };
  return {
    text: before + sign + within + sign + after,
    from: from + sign.length,
    to: to + sign.length,
  };
}

/** Puts a sign before each line that is selected, or takes it away where all have it. */
export function insertAtLines(text: string, from: number, to: number, sign: string): Edited {
  const start = text.lastIndexOf('\n', from - 1) + 1;
  const next = text.indexOf('\n', to);
  const end = next < 0 ? text.length : next;
  const lines = text.slice(start, end).split('\n');
  const all = lines.every((line) => line.startsWith(sign));
  const changed = lines
    .map((line) => (all ? line.slice(sign.length) : `${sign}${line}`))
    .join('\n');
  return {
    text: text.slice(0, start) + changed + text.slice(end),
    from: start,
    to: start + changed.length,
  };
}

/** A number with what it counts: `1 page`, `2 pages`. */
export function counted(n: number, one: string, many = `${one}s`): string {
  return `${String(n)} ${n === 1 ? one : many}`;
}

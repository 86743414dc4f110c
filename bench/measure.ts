/** How long some work takes, in seconds. */
export async function seconds(work: () => Promise<unknown>): Promise<number> {
  const start = performance.now();
  await work();
  return (performance.now() - start) / 1000;
}

export function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)] ?? 0;
}

export function say(name: string, figure: string, limit: string): void {
  console.log(`${name.padEnd(50)} ${figure.padEnd(40)} wanted: ${limit}`);
}

/** Says how long the middle one of several rounds took, in ms. */
export async function sayMedian(
  name: string,
  rounds: number,
  limit: string,
  work: () => Promise<unknown>,
): Promise<void> {
  const times: number[] = [];
  for (let i = 0; i < rounds; i++) times.push(await seconds(work));
  say(name, `${(median(times) * 1000).toFixed(1)} ms`, limit);
}

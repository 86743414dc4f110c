/** A name a person would give this browser. */
export function deviceLabel(agent: string): string {
  const browser = /Firefox|Edg|Chrome|Safari/.exec(agent)?.[0].replace('Edg', 'Edge') ?? 'Browser';
  const system = /Android|iPhone|iPad|Windows|Mac OS|Linux/.exec(agent)?.[0] ?? 'a computer';
  return `${browser} on ${system}`;
}

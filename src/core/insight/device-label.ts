/** A name a person would give this browser. */
export function deviceLabel(agent: string): string {
  const browser = /Firefox|Edg|Chrome|Safari/.exec(agent)?.[0].replace('Edg', 'Edge') ?? 'Browser';
  const system = /Android|iPhone|iPad|Windows|Mac OS|Linux/.exec(agent)?.[0] ?? 'a computer';
  return `${browser} on ${system}`;
}

/** A device by its label and whether it is remembered. */
export function deviceName(label: string, kept: boolean): string {
  return `${label}, ${kept ? 'remembered' : 'for one visit'}`;
}

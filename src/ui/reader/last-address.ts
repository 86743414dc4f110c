/** The address proven last on a remembered device: it is offered the next time. */
const NAME = 'embargo-address';

export function rememberAddress(address: string): void {
  try {
    localStorage.setItem(NAME, address);
  } catch {
    // A browser that stores nothing remembers nothing.
  }
}

/** The address that is offered; empty: none. */
export function lastAddress(): string {
  try {
    return localStorage.getItem(NAME) ?? '';
  } catch {
    return '';
  }
}

/** Whoever signs out, or is here for one visit, leaves nothing. */
export function forgetAddress(): void {
  try {
    localStorage.removeItem(NAME);
  } catch {
    // There is nothing to forget.
  }
}

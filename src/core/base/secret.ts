/** Holds a value that must not be printed: logs, JSON and templates all see `[secret]`. */
export class Secret<T> {
  readonly #value: T;

  constructor(value: T) {
    this.#value = value;
  }

  /** The value itself; call it at the last moment, where it is used. */
  reveal(): T {
    return this.#value;
  }

  toString(): string {
    return '[secret]';
  }

  toJSON(): string {
    return '[secret]';
  }

  // Node's console and pino's serialisers look for this symbol.
  [Symbol.for('nodejs.util.inspect.custom')](): string {
    return '[secret]';
  }
}

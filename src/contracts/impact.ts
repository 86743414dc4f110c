import type { DocumentId, RecipientId } from '@/core/base/ids';
import type { Right } from '@/core/policy/rights';

/** What a change of rules would do, in numbers and names. */
export type ImpactFound = {
  readonly grants: number;
  /** Those who stand by themselves. */
  readonly people: number;
  /** Whether everyone at a domain, or whoever has a link, is touched as well. */
  readonly unknown: boolean;
  readonly documents: number;
  /** How many grants lose or get each right. */
  readonly rights: readonly { readonly right: Right; readonly lost: number; readonly gained: number }[];
  readonly endNow: number;
  readonly endSooner: number;
  readonly endLater: number;
  readonly revive: number;
  readonly other: number;
  /** The first of them by name. */
  readonly rows: readonly { readonly recipient: RecipientId; /** Whether it is a person, and no group, domain or link. */ readonly person: boolean; readonly name: string; readonly organisation: string; readonly document: DocumentId; readonly title: string; readonly lost: readonly Right[]; readonly gained: readonly Right[]; readonly before: number | null; readonly after: number | null; readonly endMoves: boolean; readonly ends: boolean }[];
};

import type { DocumentId, RecipientId } from '@/core/base/ids';
import type { Right } from '@/core/policy/rights';

/** How many people, and whether more come by a domain or a link. */
export type Touched = { readonly people: number; readonly unknown: boolean };

/** What a change of rules would do, in numbers and names. */
export type ImpactFound = {
  /** How many times somebody can do something else with a document than before. */
  readonly pairs: number;
  /** Those who stand by themselves. */
  readonly people: number;
  /** Whether everyone at a domain, or anyone who has a link, is touched as well. */
  readonly unknown: boolean;
  readonly documents: number;
  readonly rights: readonly {
    readonly right: Right;
    readonly lost: Touched;
    readonly gained: Touched;
  }[];
  readonly endNow: Touched;
  /**
   * People who read something on, on their own machine, beyond the end it would have; `until` at the
   * latest. null: nobody does.
   */
  readonly readsOn: { readonly people: number; readonly until: number } | null;
  readonly endSooner: Touched;
  readonly endLater: Touched;
  readonly revive: Touched;
  readonly other: Touched;
  /** The first of them by name. */
  readonly rows: readonly {
    readonly recipient: RecipientId;
    /** Whether it is a person, and no group, domain or link. */ readonly person: boolean;
    readonly name: string;
    readonly organisation: string;
    readonly document: DocumentId;
    readonly title: string;
    readonly lost: readonly Right[];
    readonly gained: readonly Right[];
    readonly before: number | null;
    readonly after: number | null;
    readonly endMoves: boolean;
    readonly ends: boolean;
    /** Until when a device of theirs reads it on without asking, where that is after the new end. */
    readonly readsOn: number | null;
  }[];
};

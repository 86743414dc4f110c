import { z } from 'zod';
import { isId, type LicenceId } from '@/core/base/ids';
import { COUNTED_DIMENSIONS, DIMENSIONS, type Dimension } from '@/core/insight/filter';
import { KINDS, type Kind } from '@/core/insight/kinds';
import { OUTCOMES, type Entry } from '@/core/ledger/entry';
import type { SavedView } from '@/contracts/views';

/** A value of an address that may stand there several times. */
function several<T extends z.ZodType>(each: T) {
  return z.union([each.transform((one) => [one]), z.array(each).max(50)]).optional();
}
const id = z.string().min(1).max(40);
/** `2026-03-03` or `2026-03-03T14:00`. */
const dayOrMoment = z.union([z.iso.date(), z.iso.datetime({ local: true, precision: -1 })]);

/** `dimension:value`, of which nothing is wanted. */
const refusedValue = z
  .string()
  .max(200)
  .transform((text, context) => {
    const dimension = DIMENSIONS.find((each) => text.startsWith(`${each}:`));
    if (dimension !== undefined) return { dimension, value: text.slice(dimension.length + 1) };
    context.addIssue({ code: 'custom', message: 'no such filter' });
    return z.NEVER;
  });

const chosen = {
  document: several(id),
  recipient: several(id),
  dispatch: several(id),
  actor: several(id),
  device: several(id),
  version: several(id),
  kind: several(z.enum(KINDS)),
  outcome: several(z.enum(OUTCOMES)),
  reason: several(z.string().max(60)),
  place: several(z.string().max(120)),
  organisation: several(z.string().max(120)),
} satisfies Record<Dimension, z.ZodType>;

/** Of what the ledger is asked for. Values of one dimension widen each other, dimensions narrow each other. */
const filterInput = z.object({
  ...chosen,
  without: several(refusedValue),
  /** First and last day, both inside, or moments, in the organisation's zone. */
  from: dayOrMoment.optional(),
  to: dayOrMoment.optional(),
  /** Only what the asker answers for or did. */
  own: z.literal('yes').optional(),
});
export type FilterInput = z.infer<typeof filterInput>;
export const ledgerInput = filterInput.extend({
  /** Each page and key by itself, not folded into its open. */
  each: z.literal('yes').optional(),
  before: z.coerce.number().int().min(1).optional(),
});
export type LedgerInput = z.infer<typeof ledgerInput>;

/** All values of a dimension, counted under the other filters. */
export const facetInput = filterInput.extend({ facet: z.enum(COUNTED_DIMENSIONS) });
export type FacetInput = z.infer<typeof facetInput>;
export const openEntriesInput = z.object({
  licence: z.custom<LicenceId>(
    (value) => typeof value === 'string' && isId('licence', value),
    'no such open',
  ),
});
/** Values whose names hold a text. */
export const valuesInput = z.object({ text: z.string().trim().min(1).max(120) });
export type LedgerValue = {
  readonly dimension: Dimension;
  readonly value: string;
  readonly name: string;
  readonly under: string;
};

/** An entry as a list shows it. `named` of the page says what its ids are called. */
export type LedgerRow = Pick<
  Entry,
  | 'sequence'
  | 'occurredAt'
  | 'receivedAt'
  | 'action'
  | 'outcome'
  | 'reason'
  | 'rule'
  | 'actor'
  | 'document'
  | 'version'
  | 'recipient'
  | 'dispatch'
  | 'grant'
  | 'device'
  | 'licence'
  | 'details'
  | 'previous'
> & {
  readonly hash: string;
  readonly who: string;
  readonly what: string;
  /** What is still kept of the personal facts; empty: not recorded, or forgotten. */
  readonly address: string;
  readonly place: string;
  readonly network: string;
  readonly browser: string;
  readonly text: string;
  /** How many entries are told with this open. */
  readonly within: number;
};
/** Names by id. */
export type Named = Readonly<Record<string, string>>;

/** The values that most entries have, and how many values there are. */
export type Facet = { readonly values: readonly FacetCount[]; readonly all: number };
export type FacetCount = { readonly value: string; readonly entries: number };

export type LedgerPage = {
  readonly rows: readonly LedgerRow[];
  readonly named: Named;
  readonly total: number;
  readonly size: number;
  readonly signedSize: number;
  readonly signedAt: number | null;
  /** The organisation's zone, in which days are counted. */
  readonly zone: string;
  /** First and last day of the whole ledger; `null` while it is empty. */
  readonly recorded: { readonly first: string; readonly last: string } | null;
  readonly days: readonly {
    readonly day: string;
    readonly granted: number;
    readonly refused: number;
  }[];
  readonly facets: {
    readonly kinds: readonly { readonly value: Kind; readonly entries: number }[];
    readonly reasons: Facet;
    readonly places: Facet;
    readonly organisations: Facet;
  };
  /** Spots of the places, `at` longitude and latitude in degrees, and how many entries have no place. */
  readonly map: {
    readonly spots: readonly {
      readonly place: string;
      readonly entries: number;
      readonly at: readonly [number, number];
    }[];
    readonly unplaced: number;
  };
  readonly views: readonly SavedView[];
  /** Whether pages and keys are told with their open. */
  readonly folded: boolean;
  /** Whether the asker may read of what others answer for. */
  readonly everything: boolean;
  readonly older: number | null;
};

/** `checkpoints`: signed ones that were kept outside, one after another; empty: none. */
export const verifyInput = z.object({ checkpoints: z.string().max(200_000).default('') });
export type VerifyInput = z.infer<typeof verifyInput>;
/** What came of verifying the ledger. */
export type VerifyResult = {
  readonly entries: number;
  readonly checkpoints: number;
  readonly signed: number;
  /** How many entries a checkpoint from outside the database covers; null: none was at hand. */
  readonly witnessed: number | null;
  readonly backwards: number;
  readonly problems: readonly { readonly sequence: number; readonly detail: string }[];
};
/** A line of the answer: how many entries are done, or what came of it. */
export type VerifyLine = { readonly entries: number } | { readonly verification: VerifyResult };

import { z } from 'zod';
import { watermarkInput } from '@/contracts/watermark';
import type { DraftId } from '@/core/base/ids';
import type { Conditions } from '@/core/policy/conditions';
import { TAKES } from '@/core/compose/again';
import { DOUBTS } from '@/core/compose/concerns';
import type { DraftBody } from '@/core/compose/draft';
import { MOST_DOCUMENTS, MOST_DRAFT_ROWS } from '@/core/compose/limits';
import type { OwnTerms } from '@/core/compose/own-terms';
import { RIGHTS } from '@/core/policy/rights';
import type { CeilingRow } from '@/contracts/ceiling';
import type { DefaultsRow } from '@/contracts/defaults';
import type { RuleRow } from '@/contracts/rules';
import type { OwnLimits } from '@/contracts/staff';
import type { SavedText } from '@/contracts/saved-texts';
import type { SavedTermsRow } from '@/contracts/saved-terms';
import type { FolderRow } from '@/contracts/folder';
import type { MarkingRow } from '@/contracts/marking';
import type { Page } from '@/contracts/page';
import { dispatchId, draftId, termsId } from '@/contracts/dispatch';
import { DELIVERIES, DELIVERY_FORMS } from '@/core/policy/delivery';
import { documentId, type DocumentRow } from '@/contracts/document';

const moment = z.number().int().nullable();
const isObject = (value: unknown): boolean => typeof value === 'object' && value !== null;
/** Terms as they are while they are composed: they need not be able to stand yet. */
export const draftTerms = z.object({
  rights: z.array(z.enum(RIGHTS)),
  from: moment,
  until: moment,
  prints: moment,
  conditions: z.custom<Conditions>(isObject).optional(),
});
const row = z.object({
  key: z.string().min(1).max(320),
  kind: z.enum(['person', 'group', 'domain', 'link']),
  name: z.string().max(120),
  organisation: z.string().max(120),
  own: z.object({
    rights: z.partialRecord(z.enum(RIGHTS), z.boolean()).optional(),
    from: moment.optional(),
    until: moment.optional(),
    prints: moment.optional(),
    conditions: z.custom<OwnTerms['conditions']>(isObject).optional(),
  }),
  saved: termsId.nullish(),
  without: z.array(documentId).max(MOST_DOCUMENTS),
});

/** What is composed, as far as it is; nothing of it has to be whole or right. */
const draftBody: z.ZodType<DraftBody> = z.object({
  sheet: z.object({
    documents: z.array(documentId).max(MOST_DOCUMENTS),
    rows: z.array(row).max(MOST_DRAFT_ROWS),
    common: draftTerms.nullable(),
    saved: termsId.nullable(),
  }),
  subject: z.string().max(200),
  note: z.string().max(5_000),
  watermark: watermarkInput,
  way: z.object({
    form: z.enum(DELIVERY_FORMS),
    delivery: z.enum(DELIVERIES),
    titleOnCover: z.boolean(),
    noteInMail: z.boolean(),
    reason: z.string().max(400),
  }),
  leavesAt: moment.optional(),
  waved: z.array(
    z.object({
      code: z.enum(DOUBTS),
      rows: z.array(z.string().max(320)).max(MOST_DRAFT_ROWS),
    }),
  ),
});
/** `seen`: the revision that this one was made from, so that two windows do not overwrite each other. */
export const keepDraftInput = z.object({
  id: draftId.nullable(),
  seen: z.number().int().default(0),
  body: draftBody,
});
export type KeepDraftInput = z.infer<typeof keepDraftInput>;
export type DraftKept = { readonly id: DraftId; readonly revision: number };
/** What Compose is opened with, as its address says it. */
export const composeInput = z.object({
  document: z
    .string()
    .default('')
    .transform((text) =>
      text.split(',').flatMap((id) => {
        const parsed = documentId.safeParse(id);
        return parsed.success ? [parsed.data] : [];
      }),
    ),
  draft: draftId.nullable().catch(null).default(null),
  again: dispatchId.nullable().catch(null).default(null),
  take: z.enum(TAKES).catch('all').default('all'),
  /** Email addresses of people. */
  to: z.string().max(2_000).default(''),
});

export const draftInput = z.object({ id: draftId });

export type DraftRow = {
  readonly id: DraftId;
  readonly subject: string;
  readonly updatedAt: number;
};

/** What a dispatch begins with. */
export type ComposeStart = {
  /** Documents chosen already. */
  readonly picked: readonly DocumentRow[];
  /** The first stretch of those that can be sent. */
  readonly documents: Page<DocumentRow>;
  readonly terms: readonly SavedTermsRow[];
  /** What ceilings allow at most, what levels set beside, and which folder lies in which. */
  readonly ceilings: readonly CeilingRow[];
  readonly defaults: readonly DefaultsRow[];
  readonly rules: readonly RuleRow[];
  /** One's own limits as a sender; null: none. */
  readonly limits: OwnLimits | null;
  readonly parents: Readonly<Record<string, string | null>>;
  readonly folders: readonly FolderRow[];
  /** The organisation's markings, the strictest last. */
  readonly markings: readonly MarkingRow[];
  readonly now: number;
  readonly mail: boolean;
  /** How many minutes the organisation holds a dispatch back. */
  readonly heldFor: number;
  readonly draft: {
    readonly id: DraftId;
    readonly body: DraftBody;
    readonly revision: number;
    readonly updatedAt: number;
  } | null;
  readonly drafts: readonly DraftRow[];
  /** Messages kept under a name. */
  readonly texts: readonly SavedText[];
  /** A dispatch that is sent the same again, as far as it is taken over. */
  readonly again: DraftBody | null;
};

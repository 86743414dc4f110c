import { z } from 'zod';
import type { DraftId } from '@/core/base/ids';
import type { Conditions } from '@/core/policy/conditions';
import type { DraftBody } from '@/core/policy/draft';
import { RIGHTS } from '@/core/policy/rights';
import type { CeilingRow } from '@/contracts/ceiling';
import type { DefaultsRow } from '@/contracts/defaults';
import type { RuleRow } from '@/contracts/rules';
import type { OwnLimits } from '@/contracts/staff';
import type { SavedTermsRow } from '@/contracts/saved-terms';
import type { GroupRow } from '@/contracts/people';
import type { Page } from '@/contracts/page';
import { draftId, groupId, termsId } from '@/contracts/dispatch';
import { DELIVERIES, DELIVERY_FORMS } from '@/core/policy/delivery';
import { documentId, type DocumentRow } from '@/contracts/document';

const moment = z.number().int().nullable();
const terms = z.object({
  rights: z.array(z.enum(RIGHTS)),
  from: moment,
  until: moment,
  prints: moment,
  conditions: z
    .custom<Conditions>((value) => typeof value === 'object' && value !== null)
    .optional(),
});

export const draftBody: z.ZodType<DraftBody> = z.object({
  documents: z.array(documentId).max(50),
  people: z.string().max(200_000),
  own: z
    .array(
      z.object({
        address: z.string().max(320),
        name: z.string().max(120).optional(),
        organisation: z.string().max(120).optional(),
        terms: terms.nullish(),
      }),
    )
    .max(2_000),
  groups: z.array(groupId).max(20).optional(),
  terms,
  subject: z.string().max(200),
  note: z.string().max(5_000),
  watermark: z.string().max(500),
  way: z
    .object({
      form: z.enum(DELIVERY_FORMS),
      delivery: z.enum(DELIVERIES),
      titleOnCover: z.boolean(),
      openLink: z.boolean(),
      reason: z.string().max(400),
    })
    .optional(),
  kept: termsId.nullish(),
});
export const keepDraftInput = z.object({ id: draftId.nullable(), body: draftBody });
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
  readonly groups: readonly GroupRow[];
  readonly now: number;
  readonly mail: boolean;
  readonly draft: {
    readonly id: DraftId;
    readonly body: DraftBody;
    readonly updatedAt: number;
  } | null;
  readonly drafts: readonly DraftRow[];
};

import { z } from 'zod';
import {
  isId,
  type DispatchId,
  type DocumentId,
  type DraftId,
  type GrantId,
  type GroupId,
  type HeldId,
  type RecipientId,
  type TermsId,
} from '@/core/base/ids';
import { offeredRight } from '@/contracts/right';
import { DOUBTS } from '@/core/compose/concerns';
import { MOST_DOCUMENTS, MOST_RECIPIENTS } from '@/core/compose/limits';
import { brokenDependencies, type Right } from '@/core/policy/rights';
import { normaliseAddress } from '@/core/policy/address';
import type { ReachMark } from '@/core/reach/lines';
import type { AddresseeKind } from '@/core/policy/addressee';
import {
  DELIVERIES,
  DELIVERY_FORMS,
  type Delivery,
  type DeliveryForm,
} from '@/core/policy/delivery';
import { watermarkInput } from '@/contracts/watermark';
import type { Watermark } from '@/core/watermark/layers';
import { conditionsInput, domainInput } from '@/contracts/conditions';
import { reasonInput } from '@/contracts/settings';
import { documentId } from '@/contracts/document';
import type { RevokeEffect } from '@/contracts/access';
import type { MarkingRow } from '@/contracts/marking';
import type { SavedTermsRow } from '@/contracts/saved-terms';
import type { ReadSummary } from '@/core/insight/coverage';
import type { Conditions } from '@/core/policy/conditions';

export const dispatchId = z.custom<DispatchId>(
  (value) => typeof value === 'string' && isId('dispatch', value),
  'no such dispatch',
);
export const termsId = z.custom<TermsId>(
  (value) => typeof value === 'string' && isId('terms', value),
  'no such terms',
);
export const groupId = z.custom<GroupId>(
  (value) => typeof value === 'string' && isId('group', value),
  'no such group',
);
export const draftId = z.custom<DraftId>(
  (value) => typeof value === 'string' && isId('draft', value),
  'no such draft',
);
export const grantId = z.custom<GrantId>(
  (value) => typeof value === 'string' && isId('grant', value),
  'no such grant',
);

const dependencyWords = {
  read: 'needs Read',
  copy: 'needs Copy text as well',
  keep: 'needs Keep a copy',
  'unlimited-print': 'needs Print without a limit',
} as const;

const rightsAndPrints = z.object({
  rights: z.array(offeredRight).min(1, 'Read is needed'),
  prints: z.number().int().min(1).max(999).nullable(),
});

function checkDependencies(
  { rights, prints }: z.infer<typeof rightsAndPrints>,
  context: z.RefinementCtx,
): void {
  for (const { right, needs } of brokenDependencies({ rights, prints, from: null, until: null }))
    context.addIssue({
      code: 'custom',
      path: ['rights'],
      message: `${right} ${dependencyWords[needs]}`,
    });
}

/** Rights and counts without a window, as saved terms have them. */
export const rightsInput = rightsAndPrints.superRefine(checkDependencies);

/** Rights, window and counts, as one form or one API call states them. */
export const termsInput = rightsAndPrints
  .extend({
    from: z.number().int().nullable(),
    until: z.number().int().nullable(),
    conditions: conditionsInput.optional(),
  })
  .superRefine((terms, context) => {
    checkDependencies(terms, context);
    if (terms.from !== null && terms.until !== null && terms.until <= terms.from)
      context.addIssue({
        code: 'custom',
        path: ['until'],
        message: 'the end is before the start',
      });
  });

export type TermsInput = z.infer<typeof termsInput>;

const address = z.string().transform((text, context) => {
  const normalised = normaliseAddress(text);
  if (normalised === null)
    context.addIssue({ code: 'custom', message: `“${text.slice(0, 80)}” is not an email address` });
  return normalised ?? z.NEVER;
});

/** What may be one addressee's own: terms, the saved terms that those are, and documents they are not given. */
const ownInput = {
  terms: termsInput.nullish(),
  kept: termsId.nullish(),
  without: z.array(documentId).max(MOST_DOCUMENTS).optional(),
};

const recipientsInput = z
  .array(
    z.object({
      address,
      name: z.string().trim().max(120).default(''),
      organisation: z.string().trim().max(120).default(''),
      ...ownInput,
    }),
  )
  .max(
    MOST_RECIPIENTS,
    `a dispatch reaches at most ${String(MOST_RECIPIENTS)} people: make it two`,
  );

/** Most bytes of documents that travel with one message: more, and mail servers refuse it. */
export const MOST_MAILED = 18 * 1024 * 1024;

/** Groups and domains, each as a whole: anyone who joins is given it as well. */
const addresseesInput = {
  recipients: recipientsInput,
  groups: z
    .array(z.object({ id: groupId, ...ownInput }))
    .max(20)
    .optional(),
  domains: z
    .array(z.object({ domain: domainInput, ...ownInput }))
    .max(20)
    .optional(),
};
const needSomebody = ({
  recipients,
  groups = [],
  domains = [],
  openLink = null,
}: {
  readonly recipients: readonly unknown[];
  readonly groups?: readonly unknown[] | undefined;
  readonly domains?: readonly unknown[] | undefined;
  readonly openLink?: object | null | undefined;
}): boolean => openLink !== null || recipients.length + groups.length + domains.length > 0;
const NOBODY = { path: ['recipients'], message: 'add at least one recipient' };

export const dispatchInput = z
  .object({
    documents: z.array(documentId).min(1, 'choose at least one document').max(MOST_DOCUMENTS),
    ...addresseesInput,
    terms: termsInput,
    /** The saved terms that these are, unchanged. */
    kept: termsId.nullish(),
    subject: z.string().trim().min(1, 'the subject is missing').max(160),
    note: z.string().trim().max(4000),
    /** Whether the note stands in the mail; else only behind the link. */
    noteInMail: z.boolean().optional(),
    watermark: watermarkInput,
    delivery: z.enum(DELIVERIES).default('mail'),
    /** What is handed over: a link, protected files, or both. */
    form: z.enum(DELIVERY_FORMS).optional(),
    /** Whether cover pages name the documents. */
    titleOnCover: z.boolean().optional(),
    /** Present: anyone who holds the link may open it, with no proof. */
    openLink: z.object(ownInput).nullish(),
    /** Why it goes out as it does, where somebody has to say so. */
    reason: z.string().trim().max(400).optional(),
    /** What its sender was asked about and left as it is. */
    waved: z.array(z.enum(DOUBTS)).max(DOUBTS.length).optional(),
    /** When it leaves, in ms since the epoch; absent: as soon as the organisation lets it. */
    leavesAt: z.number().int().nullish(),
    /** The draft it was composed in, which is gone with it. */
    draft: draftId.nullish(),
  })
  .refine(needSomebody, NOBODY);
export type DispatchInput = z.infer<typeof dispatchInput>;
/**
 * What came of a dispatch; where a second person has to agree first, nothing yet, and where it is
 * held back, nothing until it leaves.
 */
export type SendResult = {
  readonly id: DispatchId | null;
  readonly held: HeldId | null;
  readonly reference: string;
  readonly waits: boolean;
};
export type DispatchResult = { readonly id: DispatchId; readonly reference: string };

export const addPeopleInput = z
  .object({ id: dispatchId, ...addresseesInput, terms: termsInput })
  .refine(needSomebody, NOBODY);
export type AddPeopleInput = z.infer<typeof addPeopleInput>;

const recipientId = z.custom<RecipientId>(
  (value) => typeof value === 'string' && isId('recipient', value),
  'no such person',
);

/** Documents that a dispatch carries from now on: for all of its people, or for those who are named. */
export const addDocumentsInput = z.object({
  id: dispatchId,
  documents: z.array(documentId).min(1, 'choose at least one document').max(MOST_DOCUMENTS),
  recipients: z.array(recipientId).min(1).max(MOST_RECIPIENTS).nullable(),
});
export type AddDocumentsInput = z.infer<typeof addDocumentsInput>;

/** Whose protected file of which document of a dispatch; no recipient: one for everybody it was sent to. */
export const takeFileInput = z.object({
  id: dispatchId,
  recipient: recipientId.optional(),
  document: documentId,
});
export type TakeFileInput = z.infer<typeof takeFileInput>;

/** One recipient's link into one dispatch; no recipient: that of the files made for everybody. */
export const linkInput = z.object({ id: dispatchId, recipient: recipientId.optional() });
export type LinkInput = z.infer<typeof linkInput>;

export const mailAgainInput = z.object({
  id: dispatchId,
  recipients: z.array(recipientId).min(1).max(MOST_RECIPIENTS),
});
export type MailAgainInput = z.infer<typeof mailAgainInput>;

export const heldInput = z.object({
  id: z.custom<HeldId>(
    (value) => typeof value === 'string' && isId('held', value),
    'no such dispatch',
  ),
});
/** A dispatch that is held back: it leaves by itself unless it is stopped. */
export type HeldRow = {
  /** Whether a second person agreed that it leaves at that time, and no sooner. */
  readonly approved: boolean;
  readonly id: HeldId;
  readonly subject: string;
  readonly by: string;
  readonly leavesAt: number;
  readonly documents: number;
  readonly recipients: number;
  /** Why it could not leave, in a sentence; `null`: it still will. */
  readonly problem: string | null;
  /** Whether the viewer may stop it. */
  readonly own: boolean;
};

export const dispatchPageInput = z.object({ id: dispatchId });
export const grantsInput = z.object({ grants: z.array(grantId).min(1).max(10_000) });
export const revokeGrantsInput = grantsInput.extend({ reason: reasonInput });
/**
 * Several grants changed together: all or none. What is absent stays as it is. Each names the
 * revision that was seen, so that nobody overwrites a colleague unseen.
 */
export const changeGrantsInput = z.object({
  changes: z
    .array(
      z.object({
        grant: grantId,
        revision: z.number().int(),
        until: z.number().int().nullable().optional(),
        rights: z.array(offeredRight).min(1).optional(),
        prints: z.number().int().min(1).max(999).nullable().optional(),
        conditions: conditionsInput.nullish(),
      }),
    )
    .min(1)
    .max(10_000),
  reason: reasonInput,
});
export type ChangeGrantsInput = z.infer<typeof changeGrantsInput>;
/** What of a grant can be changed. */
export type Changeable = {
  readonly until: number | null;
  readonly rights: readonly Right[];
  readonly prints: number | null;
  readonly conditions: Conditions | null;
};
export type ChangeGrantsResult = {
  readonly changed: readonly {
    readonly grant: GrantId;
    readonly revision: number;
    readonly before: Changeable;
  }[];
};

export type GrantRow = {
  readonly id: GrantId;
  readonly dispatchId: DispatchId;
  readonly dispatchReference: string;
  readonly dispatchSubject: string;
  readonly sentAt: number;
  readonly documentId: DocumentId;
  readonly documentTitle: string;
  readonly documentReference: string;
  readonly documentRevoked: boolean;
  readonly keyDestroyed: boolean;
  /** Whether the recipient is blocked, which beats every grant. */
  readonly blocked: boolean;
  readonly recipientId: RecipientId;
  /** Whether it is for a person or stands for many. */
  readonly kind: AddresseeKind;
  /** The grant to many that this one stands beneath. */
  readonly parent: GrantId | null;
  /** The name of the recipient who passed it on; null: the staff gave it. */
  readonly passedOnBy: string | null;
  readonly name: string;
  readonly address: string;
  readonly organisation: string;
  /** The recipient's own zone, where it is known. */
  readonly zone: string | null;
  readonly rights: readonly Right[];
  readonly from: number | null;
  readonly until: number | null;
  readonly prints: number | null;
  readonly printsMade: number;
  readonly conditions: Conditions | null;
  /**
   * What it comes to where that is less than was given: by ceilings, the grant it was passed on
   * from, or the span from its first open.
   */
  readonly capped: {
    readonly rights: readonly Right[];
    readonly until: number | null;
    readonly prints: number | null;
    readonly byCeiling: boolean;
  } | null;
  readonly revokedAt: number | null;
  readonly revision: number;
  readonly givenAt: number;
  readonly opens: number;
  readonly lastOpen: number | null;
  /** What was read of the newest version, as browsers told; null: never opened, or not for the person who looks. */
  readonly read: ReadSummary | null;
  /**
   * Since when devices have the key, and until when they read on without asking, whatever is changed
   * here; null: none does, or not for the person who looks.
   */
  readonly offline: { readonly from: number; readonly until: number } | null;
  readonly refusals: number;
  /** Whether the text of pages is sent to them for a screen reader, although they may not copy it. */
  readonly readingAids: boolean;
  /** Whether the person who looks may change it. */
  readonly mayChange: boolean;
  readonly link: string;
  /** Whether that link was switched off, and leads nowhere. */
  readonly linkOff: boolean;
};

/** Where the last message of a dispatch to somebody is. Moments in ms since the epoch. */
export type HandedOver = {
  readonly recipientId: RecipientId;
  readonly state: 'waiting' | 'delivered' | 'returned' | 'failed' | 'stopped';
  readonly at: number;
  /** Why it did not go out, came back or is late; empty: nothing is known. */
  readonly problem: string;
};

/** Something a recipient did, as far as a picture shows it. */
export type EventMark = {
  readonly recipientId: RecipientId;
  readonly documentId: DocumentId | null;
  readonly at: number;
  /** `changed`: what they may do, or until when, was changed. */
  readonly kind: ReachMark['kind'];
};

export type DispatchDetail = {
  readonly id: DispatchId;
  readonly reference: string;
  readonly subject: string;
  readonly note: string;
  readonly noteInMail: boolean;
  readonly watermark: Watermark;
  readonly delivery: Delivery;
  readonly form: DeliveryForm;
  readonly titleOnCover: boolean;
  /** Why it went out as it did; empty: nobody had to say. */
  readonly reason: string;
  /** Whether the person who looks may add people. */
  readonly mayAdd: boolean;
  /** The link of files made for everybody it was sent to; `null`: none was made. */
  readonly sharedLink: { readonly off: boolean } | null;
  readonly sentAt: number;
  readonly sentBy: string;
  readonly grants: readonly GrantRow[];
  /**
   * What revoking all of it would do now; null: it goes to too many to be told in passing, and is
   * told when it is asked for.
   */
  readonly ifRevoked: RevokeEffect | null;
  /** What people who are added can be given instead of what the others have. */
  readonly savedTerms: readonly SavedTermsRow[];
  /** What documents that are added can be marked as. */
  readonly markings: readonly MarkingRow[];
  readonly marks: readonly EventMark[];
  /** Requests of its recipients that wait for an answer. */
  readonly requests: number;
  /** The last message to each of its recipients. */
  readonly mail: readonly HandedOver[];
};

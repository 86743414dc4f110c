import { z } from 'zod';
import type { MediaType } from '@/core/content/media-types';
import type { DocumentId, LicenceId, VersionId } from '@/core/base/ids';
import { emailAddress } from '@/contracts/address';
import { documentId } from '@/contracts/document';
import { linkToken } from '@/contracts/link-token';
import type { OwnRequest } from '@/contracts/requests';
import type { OwnRevision } from '@/contracts/own-revision';
import type { RefusalReason, RightVerdict } from '@/core/policy/decide';
import type { PassOn } from '@/core/policy/conditions';
import { RIGHTS, type Right } from '@/core/policy/rights';

export const publicKey = z.object({
  kty: z.literal('EC'),
  crv: z.literal('P-256'),
  x: z.string().max(64),
  y: z.string().max(64),
});

/** `token`: null to see what was sent to the address. */
export const requestCodeInput = z.object({ token: linkToken.nullable(), address: emailAddress });
export const enterCodeInput = z.object({
  token: linkToken.nullable(),
  address: emailAddress,
  code: z
    .string()
    .transform((text) => text.replaceAll(/\s/g, ''))
    .pipe(z.string().regex(/^\d{6}$/, 'the code has six digits')),
  kept: z.boolean(),
  publicKey,
});
/** Coming by a link that asks for no proof. */
export const visitInput = z.object({ token: linkToken, publicKey });
export type VisitInput = z.infer<typeof visitInput>;
export type EnterCodeInput = z.infer<typeof enterCodeInput>;

export const licenceId = z.custom<LicenceId>(
  (value) => typeof value === 'string' && /^lic_[0-9a-z]{20}$/.test(value),
  'no such open',
);
/** What a link leads to. */
export const sharedInput = z.object({ token: linkToken });
/** `token`: null from the list of what somebody was sent. */
export const openInput = z.object({ token: linkToken.nullable(), document: documentId });
export const pageInput = z.object({
  licence: licenceId,
  page: z.coerce.number().int().min(1),
  /** Of the whole page in px; the widest only where a part is asked for. */
  width: z.coerce.number().int().min(100).max(20_000).default(1275),
  /** Which of the squares that the page is cut into; absent: the whole page. */
  column: z.coerce.number().int().min(0).max(20).optional(),
  row: z.coerce.number().int().min(0).max(20).optional(),
});
/** Whole words, however they are capitalised, looked for from a page on. */
export const findInput = z.object({
  licence: licenceId,
  words: z.string().trim().min(2, 'two letters at least').max(80),
  from: z.coerce.number().int().min(1).default(1),
});
export type FindInput = z.output<typeof findInput>;
export type PageInput = z.output<typeof pageInput>;
/** How long pages were in view since this was told last, in ms. */
export const readingInput = z.object({
  licence: licenceId,
  pages: z
    .array(
      z.object({ page: z.number().int().min(1), shown: z.number().int().min(0).max(3_600_000) }),
    )
    .min(1)
    .max(200),
});
export type ReadingInput = z.output<typeof readingInput>;
export const pageTextInput = z.object({ licence: licenceId, page: z.coerce.number().int().min(1) });
export const copiedInput = pageTextInput.extend({
  characters: z.number().int().min(1).max(10_000_000),
});
export const printInput = z.object({
  licence: licenceId,
  from: z.number().int().min(1),
  to: z.number().int().min(1),
});
export const licenceInput = z.object({ licence: licenceId });

/** Where something stands on a page, in hundredths of a percent of it, from its top left. */
type PageBox = {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
};
export type TextPiece = PageBox & { readonly text: string };
/** A page on which words were found: each place as its boxes. */
export type FoundPage = { readonly page: number; readonly places: readonly (readonly PageBox[])[] };
/** A line of a document's outline; `depth` counts from 0. */
export type OutlineLine = { readonly title: string; readonly page: number; readonly depth: number };

/** What a reader passes on, to whom and until when. */
export const passOnInput = z.object({
  document: documentId,
  address: emailAddress,
  rights: z
    .array(z.enum(RIGHTS))
    .min(1)
    .refine((rights) => rights.includes('read'), 'Read has to be passed on'),
  until: z.number().int().nullable(),
  note: z.string().trim().max(1_000).default(''),
});
export type PassOnInput = z.infer<typeof passOnInput>;
export type PassedOn = {
  readonly address: string;
  readonly rights: readonly Right[];
  readonly until: number | null;
  readonly revoked: boolean;
};

/** One document behind a link, as the person sees it. */
export type SharedDocument = {
  readonly id: DocumentId;
  readonly title: string;
  readonly reference: string;
  readonly pages: number;
  /** The current one, which a protected file has to hold to be read. */
  readonly version: VersionId;
  readonly state:
    | {
        readonly open: true;
        readonly until: number | null;
        /** Null: as many as wanted. */
        readonly opensLeft: number | null;
        /** Null: none may be made, or as many as wanted. */
        readonly printsLeft: number | null;
        readonly rights: readonly Right[];
      }
    | {
        readonly open: false;
        readonly reason: RefusalReason;
        /** When it ended or will begin, where the reason is about that. */ readonly at:
          number | null;
      };
};

/** What a link shows to somebody whose address is proven; `documents` is empty for a stranger. */
export type SharedWith = {
  readonly address: string;
  readonly sender: {
    readonly name: string;
    readonly email: string;
    readonly organisation: string;
  } | null;
  readonly note: string;
  readonly documents: readonly SharedDocument[];
};

/** What somebody may do with a document they have open; it is asked for again after every change. */
export type OpenState = {
  /** When this was so, by the server's clock. */
  readonly asOf: number;
  readonly until: number | null;
  readonly rights: Readonly<Record<Right, RightVerdict>>;
  /** Whether the text of pages comes for a screen reader, although it may not be copied. */
  readonly readingAids: boolean;
  /** Whether the page is covered while another window is in front. */
  readonly captureDeterrent: boolean;
  /**
   * How long it stays readable on their own machine without asking again, in ms; 0: it asks at every
   * open; null: it does not open there.
   */
  readonly offline: number | null;
  /** Within what they may pass it on; null: not at all. */
  readonly passOn: PassOn | null;
  readonly passedOn: readonly PassedOn[];
  readonly requests: readonly OwnRequest[];
  /** Changed files that they sent back. */
  readonly revisions: readonly OwnRevision[];
};

export type OpenResult =
  | (OpenState & {
      readonly outcome: 'granted';
      readonly licence: LicenceId;
      readonly title: string;
      readonly reference: string;
      /** Its content is not at the service: it is read from its protected file alone. */
      readonly isLocal: boolean;
      /** Whether a protected file of it went out, that can be had once more. */
      readonly hasFile: boolean;
      /** 0: it is of a kind that is not shown, and can only be kept. */
      readonly pages: number;
      readonly file: { readonly kind: MediaType; readonly name: string };
      readonly document: DocumentId;
      readonly version: VersionId;
      /** Whether this browser is kept, so that it may keep where one was. */
      readonly kept: boolean;
      /** When this open began, by the server's clock. */
      readonly openedAt: number;
      readonly sender: {
        readonly name: string;
        readonly email: string;
        readonly organisation: string;
      };
      readonly address: string;
    })
  | {
      readonly outcome: 'refused';
      readonly reason: RefusalReason;
      /** When access ended or will begin, where the reason is about that. */ readonly at:
        number | null;
      readonly address: string;
      readonly sender: { readonly name: string; readonly email: string } | null;
      readonly requests: readonly OwnRequest[];
    };

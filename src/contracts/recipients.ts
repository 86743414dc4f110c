import { z } from 'zod';
import type { GroupId } from '@/core/base/ids';

export const checkRecipientsInput = z.object({
  addresses: z.array(z.string().max(320)).max(2_000),
  domains: z.array(z.string().max(320)).max(50).default([]),
});
/** What is known about an address before anything is sent to it. */
export type RecipientCheck = {
  readonly address: string;
  readonly known: {
    readonly name: string;
    readonly organisation: string;
    readonly blocked: boolean;
    /** Whether an owner switched reading aids on for them. */
    readonly readingAids: boolean;
    /** When they were last sent something; `null`: never. */
    readonly lastSentAt: number | null;
  } | null;
  readonly looksLike: string | null;
  /** Whether everybody can have an address there. */
  readonly publicMail: boolean;
  /** Whether it is at a domain of the organisation's own. */
  readonly inside: boolean;
};
/** What is known about a domain before everyone there is given something. */
export type DomainCheck = {
  readonly domain: string;
  readonly organisation: string;
  /** People there who are known here. */
  readonly known: number;
  readonly publicMail: boolean;
  readonly inside: boolean;
};
export type AddresseesChecked = {
  readonly checks: readonly RecipientCheck[];
  readonly domains: readonly DomainCheck[];
};

export const suggestInput = z.object({ q: z.string().trim().min(1).max(120) });
/** Whom somebody may mean who typed a part of a name. */
type SuggestedPerson = {
  readonly kind: 'person';
  readonly address: string;
  readonly name: string;
  readonly organisation: string;
  readonly blocked: boolean;
  readonly inside: boolean;
  readonly lastSentAt: number | null;
};
export type Suggestion =
  | SuggestedPerson
  | { readonly kind: 'organisation'; readonly name: string; readonly people: number }
  | {
      readonly kind: 'group';
      readonly id: GroupId;
      readonly name: string;
      readonly people: number;
    };

export const peopleAtInput = z.object({ organisation: z.string().trim().min(1).max(120) });
/** The people of an organisation who can open what they are sent. */
export type PeopleAt = {
  readonly people: readonly {
    readonly address: string;
    readonly name: string;
    readonly organisation: string;
  }[];
};

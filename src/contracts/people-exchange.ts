import { z } from 'zod';
import type { LineProblem } from '@/core/people/person';
import type { PeopleFormat } from '@/core/people/read';

/** Characters of a list that is brought in: a hundred thousand lines and more. */
const LARGEST_LIST = 30_000_000;

export const importPeopleInput = z.object({
  text: z.string().max(LARGEST_LIST, 'this list is too long to import at once: make it two'),
});
export const takePeopleInput = z.object({ format: z.enum(['csv', 'ldif', 'vcard']) });

export type PeoplePreview = {
  readonly format: PeopleFormat;
  /** Groups that people come into, and what that gives them. */
  readonly groups: readonly {
    readonly name: string;
    readonly isNew: boolean;
    readonly joining: number;
    /** Dispatches that are for the group as such. */
    readonly live: number;
  }[];
  readonly added: number;
  readonly changed: number;
  readonly same: number;
  readonly problems: number;
  readonly doubtful: readonly {
    readonly domain: string;
    readonly like: string;
    readonly people: number;
  }[];
  /** The first of each, to be looked at. */
  readonly firstAdded: readonly {
    readonly line: number;
    readonly address: string;
    readonly name: string;
    readonly organisation: string;
  }[];
  readonly firstChanged: readonly {
    readonly line: number;
    readonly address: string;
    readonly before: string;
    readonly after: string;
  }[];
  readonly firstProblems: readonly LineProblem[];
};

/** One line of the answer while people are brought in; the last one says `over`. */
export type BringProgress = {
  readonly done: number;
  readonly all: number;
  readonly over: boolean;
  /** Nothing was done: something went wrong that nobody foresaw. */
  readonly failed?: true;
};

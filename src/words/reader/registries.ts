import type { RefusalReason, Withheld } from '@/core/policy/decide';
import type { RequestState } from '@/core/policy/requests';
import type { Right } from '@/core/policy/rights';

type Among<T> = T & Readonly<Record<string, unknown>>;

/** What the reader has words for, one by one: the compiler asks for those of whatever is added. */
export type Registries = Among<{
  readonly rights: Among<{
    readonly names: Readonly<Record<Right, string>>;
    readonly verbs: Readonly<Record<Right, string>>;
  }>;
  readonly reasons: Readonly<
    Record<RefusalReason, { readonly title: string; readonly next: string }>
  >;
  readonly withheld: Among<{
    readonly right: Readonly<Record<Withheld, string>>;
    readonly now: Readonly<Record<Withheld, string>>;
  }>;
  readonly ask: Among<{ readonly states: Readonly<Record<RequestState, string>> }>;
}>;

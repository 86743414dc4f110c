import type { Dependency } from '@/core/policy/rights';

/** Why a right cannot stand without another. */
export const needsWords: Record<Dependency['needs'], string> = {
  read: 'needs Read',
  copy: 'is possible only where text may be copied too',
  keep: 'is possible only where a copy may be kept, to be changed',
  'unlimited-print': 'is possible only where print is unlimited',
};

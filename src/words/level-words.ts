import type { Level } from '@/core/policy/levels';

/** A level of one document, as in `the ceiling of its folder`. */
export const ownLevelWords: Record<Level, string> = {
  organisation: 'the organisation',
  marking: 'its marking',
  folder: 'its folder',
  document: 'the document itself',
};

import { describe, expect, it } from 'vitest';
import { isSameState, stateWords } from '@/ui/access-then/then-words';

describe('past access in words', () => {
  it('says what could be done, or why it could not be opened', () => {
    expect(stateWords({ opens: true, rights: ['read', 'print'], printsLeft: 2, until: null })).toBe(
      'Read · Print 2',
    );
    expect(stateWords({ opens: false, reason: 'revoked' })).toBe('access was revoked');
  });

  it('tells two days apart by rights, prints and ends', () => {
    const state = { opens: true, rights: ['read'], printsLeft: null, until: 5 } as const;
    expect([
      isSameState(state, state),
      isSameState(state, { ...state, until: 6 }),
      isSameState(state, { opens: false, reason: 'expired' }),
      isSameState({ opens: false, reason: 'revoked' }, { opens: false, reason: 'expired' }),
    ]).toEqual([true, false, false, false]);
  });
});

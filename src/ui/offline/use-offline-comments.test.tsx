import { act, renderHook, waitFor } from '@testing-library/react';
import { beforeEach, expect, test, vi } from 'vitest';
import type { KeptComment } from '@/ui/own-machine/kept-comments';
import type { KeptLicence } from '@/ui/own-machine/kept-licences';
import { useOfflineComments } from '@/ui/offline/use-offline-comments';

const store = vi.hoisted(() => ({ comments: [] as KeptComment[], isFull: false }));
vi.mock('@/ui/own-machine/kept-comments', () => ({
  keptComments: () => Promise.resolve([...store.comments]),
  keepComment: (comment: KeptComment) => {
    if (store.isFull) return Promise.reject(new Error('no room'));
    store.comments.push(comment);
    return Promise.resolve();
  },
  forgetComment: (id: string) => {
    store.comments = store.comments.filter((each) => each.id !== id);
    return Promise.resolve();
  },
}));
beforeEach(() => {
  store.comments = [];
  store.isFull = false;
});

const HOUR = 3_600_000;
function keptAt(version: string, address = 'ben@ardent.example'): KeptLicence {
  const now = Date.now();
  return {
    licence: `lic_${version}`,
    version,
    ...{ now, deviceNow: now, lastSeen: now, offlineUntil: now + HOUR },
    opens: 0,
    taken: {},
    about: { address, mayComment: true, document: 'doc_1' },
  } as unknown as KeptLicence;
}
const DRAFT = { page: 1, place: { kind: 'point', x: 0.1, y: 0.2 }, text: 'The weld' } as never;

function reading(kept: KeptLicence | null) {
  return renderHook(({ of }: { readonly of: KeptLicence | null }) => useOfflineComments(of), {
    initialProps: { of: kept },
  });
}

test('what is begun on one document does not stand on another, and is there again on the first', () => {
  const { result, rerender } = reading(keptAt('one'));
  act(() => {
    result.current.setDraft(DRAFT);
  });
  expect(result.current.draft).toBe(DRAFT);
  rerender({ of: keptAt('two') });
  expect(result.current.draft).toBeNull();
  rerender({ of: null });
  expect(result.current.draft).toBe(DRAFT);
  rerender({ of: keptAt('one') });
  expect(result.current.draft).toBe(DRAFT);
});

test('what cannot be kept stays where it is written, and is said', async () => {
  store.isFull = true;
  const { result } = reading(keptAt('one'));
  act(() => {
    result.current.setDraft(DRAFT);
  });
  await act(() => result.current.save());
  expect(result.current.problem).toMatch(/could not be kept|not kept/i);
  expect(result.current.draft).toBe(DRAFT);
  store.isFull = false;
  await act(() => result.current.save());
  expect(result.current.problem).toBeNull();
  expect(result.current.draft).toBeNull();
  expect(store.comments).toMatchObject([{ version: 'one', document: 'doc_1', text: 'The weld' }]);
});

test('nobody sees what another wrote in the same browser, nor what was refused', async () => {
  const { result, rerender } = reading(keptAt('one'));
  act(() => {
    result.current.setDraft(DRAFT);
  });
  await act(() => result.current.save());
  await waitFor(() => {
    expect(result.current.all).toHaveLength(1);
  });
  rerender({ of: keptAt('one', 'ada@ardent.example') });
  await waitFor(() => {
    expect(result.current.all).toHaveLength(0);
  });
  store.comments = store.comments.map((each) => ({ ...each, isRefused: true }));
  rerender({ of: keptAt('one') });
  await act(() => Promise.resolve());
  expect(result.current.all).toHaveLength(0);
});

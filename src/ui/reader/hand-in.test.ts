import { expect, test, vi } from 'vitest';
import { CallError } from '@/ui/http/call';
import { forgetComment, keptComments } from '@/ui/own-machine/kept-comments';
import { allLicences, forgetOpen, opensToHandIn } from '@/ui/own-machine/kept-licences';
import { handIn } from '@/ui/reader/hand-in';
import { readerCall } from '@/ui/reader/reader-call';

vi.mock('@/ui/reader/reader-call', () => ({ readerCall: vi.fn() }));
vi.mock('@/ui/own-machine/kept-comments', () => ({
  keptComments: vi.fn(),
  keepComment: vi.fn(),
  forgetComment: vi.fn(),
}));
vi.mock('@/ui/own-machine/kept-licences', () => ({
  allLicences: vi.fn(),
  forgetLicence: vi.fn(),
  forgetOpen: vi.fn(),
  opensToHandIn: vi.fn(),
}));

test('a comment that is not answered for stays, and keeps no open from being told', async () => {
  const open = { licence: 'lic_1', number: 1, openedAt: 0, pages: [] } as const;
  vi.mocked(keptComments).mockResolvedValue([{ id: 'cmt_1', isRefused: false } as never]);
  vi.mocked(allLicences).mockResolvedValue([]);
  vi.mocked(opensToHandIn).mockResolvedValue([open as never]);
  vi.mocked(readerCall).mockImplementation((_method, path) =>
    path.endsWith('/comments')
      ? Promise.reject(new CallError('Too many.', 'TOO_MANY', 429))
      : Promise.resolve({ taken: 1, over: [] } as never),
  );
  await handIn();
  expect(forgetOpen).toHaveBeenCalledWith(open);
  expect(forgetComment).not.toHaveBeenCalled();
});

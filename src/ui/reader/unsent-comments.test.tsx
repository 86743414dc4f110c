import { cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, expect, test, vi } from 'vitest';
import { forgetComment, keptComments, type KeptComment } from '@/ui/own-machine/kept-comments';
import { UnsentComments } from '@/ui/reader/unsent-comments';

vi.mock('@/ui/own-machine/kept-comments', () => ({
  keptComments: vi.fn(),
  forgetComment: vi.fn(() => Promise.resolve()),
}));
afterEach(cleanup);

const DOCUMENT = 'doc_1111111111111111';
const ADDRESS = 'mira@brackwater.example';
const written = (text: string, other: Partial<KeptComment> = {}): KeptComment => ({
  id: `cmt_${text}`,
  licence: 'lic_1111111111111111',
  document: DOCUMENT,
  version: 'ver_1111111111111111',
  address: ADDRESS,
  page: 2,
  place: { kind: 'point', left: 0, top: 0 },
  text,
  madeAt: 0,
  isRefused: true,
  ...other,
});

test('what could not be handed in is shown to its author beside this document, until it is removed', async () => {
  vi.mocked(keptComments).mockResolvedValue([
    written('mine'),
    written('waiting', { isRefused: false }),
    written('elsewhere', { document: 'doc_2222222222222222' }),
    written('theirs', { address: 'jonas@brackwater.example' }),
  ]);
  render(<UnsentComments document={DOCUMENT} address={ADDRESS} />);
  await screen.findByDisplayValue('mine');
  expect(screen.getAllByRole('textbox')).toHaveLength(1);
  await userEvent.click(screen.getByRole('button', { name: 'Remove' }));
  await waitFor(() => {
    expect(screen.queryByRole('textbox')).toBeNull();
  });
  expect(forgetComment).toHaveBeenCalledWith('cmt_mine');
});

import { cleanup, render, screen, waitFor } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { MarkPreview } from '@/ui/watermark/mark-preview';
import { pagePreview } from '@/ui/watermark/page-preview';

const rows = [
  { id: 'doc_model', title: 'Model', pages: 0 },
  { id: 'doc_drawing', title: 'Drawing', pages: 3 },
];
vi.mock('@/ui/http/use-asked', () => ({
  useAsked: () => ({ answer: { rows, total: 2 }, problem: null }),
}));
vi.mock('@/ui/protecting/document-box', () => ({ DocumentBox: () => null }));
vi.mock('@/ui/watermark/page-preview', () => ({
  pagePreview: vi.fn(() => Promise.resolve('blob:page')),
}));
afterEach(cleanup);

test('a watermark is shown on a document that has pages, whatever came in last', async () => {
  render(
    <MarkPreview
      layers={[]}
      shownAs={{
        document: { id: 'doc_model', title: 'Model', pages: 0 },
        address: 'mira@brackwater.example',
        name: '',
        organisation: '',
      }}
    />,
  );
  await waitFor(() => {
    expect(screen.getAllByRole('img', { name: /^Page 1 of Drawing/ })).toHaveLength(3);
  });
  const asked = vi.mocked(pagePreview).mock.calls.map(([{ id }]) => id);
  expect(new Set(asked)).toEqual(new Set(['doc_drawing']));
});

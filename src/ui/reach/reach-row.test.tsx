import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, test, vi } from 'vitest';
import { DAY } from '@/core/base/time';
import type { ReachLine, Stretch } from '@/core/reach/lines';
import { ReachRow } from '@/ui/reach/reach-row';
import { reachScale } from '@/ui/reach/reach-scale';

afterEach(cleanup);

const NOW = Date.UTC(2026, 10, 25, 9);
const scale = reachScale([NOW - 10 * DAY, NOW + 10 * DAY], 400, 'UTC');
const stretch = (kind: Stretch['kind'], until: number): Stretch => ({
  from: NOW - 5 * DAY,
  until,
  kind,
});
const line = (stretches: readonly Stretch[], revokedAt: number | null): ReachLine => ({
  recipientId: 'rcp_ann',
  grants: ['grt_1', 'grt_2', 'grt_3'],
  stretches,
  end: NOW + 5 * DAY,
  revokedAt,
  marks: [],
});
const row = (of: ReachLine, onPropose?: (until: number) => void) => (
  <ReachRow
    line={of}
    scale={scale}
    now={NOW}
    proposed={undefined}
    name="Ann"
    endText="ends in 5 days"
    onPropose={onPropose}
  />
);

test('once all of it is revoked, nothing of what it would have been stays drawn', () => {
  const live = [1, 2, 3].map(() => stretch('live', NOW + 5 * DAY));
  const { container, rerender } = render(row(line(live, null)));
  const drawn = (colour: string) => container.querySelectorAll(`line[stroke="${colour}"]`).length;
  expect(drawn('var(--current)')).toBe(3);
  rerender(
    row(
      line(
        [1, 2, 3].map(() => stretch('cut', NOW)),
        NOW,
      ),
    ),
  );
  expect(drawn('var(--current)')).toBe(0);
  expect(drawn('var(--quiet)')).toBe(3);
  expect(screen.queryByRole('slider')).toBeNull();
});

test('what a device reads without asking stays drawn, also beyond the cut', () => {
  const { container } = render(
    row(line([stretch('cut', NOW), stretch('offline', NOW + 2 * DAY)], NOW)),
  );
  const tail = container.querySelector('path[data-stretch="offline"]')?.getAttribute('d') ?? '';
  const starts = [...tail.matchAll(/M([\d.]+)/g)].map(([, x]) => Number(x));
  expect(Math.min(...starts)).toBeCloseTo(scale.x(NOW - 5 * DAY));
  expect(Math.max(...starts)).toBeGreaterThan(scale.x(NOW + DAY));
  expect(Math.max(...starts)).toBeLessThan(scale.x(NOW + 2 * DAY));
});

test('the arrow keys propose another end, a day or with Shift a week; a fixed end takes none', () => {
  const propose = vi.fn<(until: number) => void>();
  const of = line([stretch('live', NOW + 5 * DAY)], null);
  const { rerender } = render(row(of, propose));
  const end = () => screen.getByRole('slider', { name: 'End of access for Ann' });
  fireEvent.keyDown(end(), { key: 'ArrowRight' });
  fireEvent.keyDown(end(), { key: 'ArrowLeft', shiftKey: true });
  expect(propose.mock.calls).toEqual([[NOW + 6 * DAY], [NOW - 2 * DAY]]);
  rerender(row(of));
  expect(end().getAttribute('aria-disabled')).toBe('true');
  expect(end().tabIndex).toBe(-1);
});

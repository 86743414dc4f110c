import { describe, expect, test } from 'vitest';
import { hasCode } from '@/core/base/errors';
import { ContentError } from '@/core/pages/errors';
import { createDrawnPages } from '@/server/rendering/drawn-pages';
import type {
  Drawn,
  RenderResults,
  RenderTask,
  SealedSource,
} from '@/server/rendering/render-task';
import { shareDrawn } from '@/server/rendering/shared-pages';

function drawnOf(bytes: number): Drawn {
  const [width, height] = [bytes / 4, 1];
  return {
    pixels: new SharedArrayBuffer(bytes),
    colours: 'unknown',
    width,
    height,
    view: { width, height, crop: { left: 0, top: 0, width, height } },
    photographic: false,
    points: { width: 595, height: 842 },
  };
}

const source: SealedSource = {
  place: { kind: 'file', path: '/nowhere/one' } as never,
  start: 0,
  sealedBytes: 1,
  key: new Uint8Array(32),
};
const page = (number: number) => ({
  kind: 'page' as const,
  source,
  page: number,
  width: 800,
  watermark: [],
});

/** Draws that end when they are told to. */
function slowly() {
  const begun: { readonly isShared: boolean; readonly end: (error?: Error) => void }[] = [];
  const run = (task: RenderTask) =>
    new Promise<RenderResults['page'] & RenderResults['draw']>((resolve, reject) => {
      begun.push({
        isShared: 'drawn' in task,
        end: (error) => {
          if (error !== undefined) reject(error);
          else
            resolve({
              bytes: new Uint8Array(1),
              type: 'image/png',
              width: 1,
              height: 1,
              points: { width: 595, height: 842 },
              drawn: drawnOf(400),
            });
        },
      });
    });
  return { begun, shared: shareDrawn(run, run) };
}

const settle = () => new Promise((resolve) => setImmediate(resolve));

describe('a page that many are shown', () => {
  test('is drawn once, however many ask while it is drawn', async () => {
    const { begun, shared } = slowly();
    const all = Array.from({ length: 20 }, (_each, i) => shared.run(page(1), { who: String(i) }));
    await settle();
    expect(begun).toHaveLength(1);
    begun[0]?.end();
    await settle();
    expect(begun).toHaveLength(20);
    expect(begun.slice(1).every(({ isShared }) => isShared)).toBe(true);
    for (const { end } of begun) end();
    await Promise.all(all);
  });

  test('is drawn by the next one where the first gave up', async () => {
    const { begun, shared } = slowly();
    const first = shared.run(page(1), { who: 'a' });
    const second = shared.run(page(1), { who: 'b' });
    await settle();
    begun[0]?.end(new Error('gone'));
    await expect(first).rejects.toThrow('gone');
    await settle();
    expect(begun).toHaveLength(2);
    expect(begun[1]?.isShared).toBe(false);
    begun[1]?.end();
    await second;
  });

  test('that took too much is not tried by the others, one after another, for as long', async () => {
    const { begun, shared } = slowly();
    const all = Array.from({ length: 20 }, (_each, i) =>
      shared.run(page(1), { who: String(i) }).catch((error: unknown) => error),
    );
    await settle();
    begun[0]?.end(new ContentError('PDF_TOO_DEMANDING'));
    const errors = await Promise.all(all);
    expect(errors.every((error) => hasCode(error, 'PDF_TOO_DEMANDING'))).toBe(true);
    expect(begun).toHaveLength(1);
    // Another page of the same document is drawn as ever, and so is this one once keys are let go of.
    void shared.run(page(2), { who: 'x' });
    shared.ahead(page(1), 'x');
    await settle();
    expect(begun).toHaveLength(2);
    shared.forget();
    void shared.run(page(1), { who: 'x' });
    await settle();
    expect(begun).toHaveLength(3);
  });

  test('is let go of with the key, also where it was being drawn meanwhile', async () => {
    const { begun, shared } = slowly();
    const before = shared.run(page(1), { who: 'a' });
    await settle();
    shared.forget();
    begun[0]?.end();
    await before;
    const after = shared.run(page(1), { who: 'b' });
    await settle();
    expect(begun[1]?.isShared).toBe(false);
    begun[1]?.end();
    await after;
  });

  test('is there already where it was drawn ahead, which nobody hears the failure of', async () => {
    const { begun, shared } = slowly();
    shared.ahead({ source, page: 2, width: 800 }, 'a');
    shared.ahead({ source, page: 3, width: 800 }, 'a');
    shared.ahead({ source, page: 2, width: 800 }, 'b');
    await settle();
    expect(begun).toHaveLength(2);
    begun[0]?.end();
    begun[1]?.end(new Error('there is no such page'));
    await settle();
    const asked = shared.run(page(2), { who: 'a' });
    await settle();
    expect(begun[2]?.isShared).toBe(true);
    begun[2]?.end();
    await asked;
  });
});

describe('pages that are held', () => {
  test('are those used last, within their bytes and their time', () => {
    let now = 0;
    const held = createDrawnPages({ bytes: 1_000, age: 60 }, () => now);
    held.hold('one', drawnOf(400));
    held.hold('two', drawnOf(400));
    expect(held.find('one')).not.toBeNull();
    held.hold('three', drawnOf(400));
    expect(held.find('two')).toBeNull();
    expect(held.find('one')).not.toBeNull();
    now = 61;
    expect(held.find('one')).toBeNull();
    held.hold('four', drawnOf(400));
    held.forget();
    expect(held.find('four')).toBeNull();
  });
});

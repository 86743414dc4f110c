import { describe, expect, test } from 'vitest';
import { outlineOf, widthOf } from '@/core/watermark/outline';
import { ownScriptsOnly, shapeLine } from '@/core/watermark/shape';
import { createScriptFonts } from '@/server/rendering/script-fonts';

const others = createScriptFonts();
const shaped = (text: string) => shapeLine(text, others);

/** What stands for a character that no font has, to be told from a real one. */
const missing = (await shapeLine('\u{10FFFD}', ownScriptsOnly))[0]?.path;

describe('names in any script', () => {
  test.each([
    ['Latin', 'Åse Żółć'],
    ['Cyrillic', 'Мира Кольбе'],
    ['Greek', 'Ελένη Παππά'],
    ['Arabic', 'محمد السيد'],
    ['Japanese', '山田 花子'],
    ['kana', 'やまだ ハナコ'],
    ['Chinese', '张伟 陳小姐'],
    ['Korean', '김민수 박'],
    ['Hebrew', 'שרה כהן'],
  ])('%s is drawn, every character of it', async (_script, text) => {
    const glyphs = await shaped(text);
    expect(glyphs.length).toBeGreaterThan(3);
    expect(glyphs.map(({ path }) => path)).not.toContain(missing);
    const drawn = glyphs.filter(({ path }) => path !== '');
    expect(drawn.length).toBeGreaterThanOrEqual(text.replaceAll(' ', '').length);
    expect(outlineOf(glyphs, 20).length).toBeGreaterThan(0);
    expect(widthOf(glyphs, 20)).toBeGreaterThan(40);
  });

  test('Arabic letters join, and run from right to left within a line that runs the other way', async () => {
    const alone = await Promise.all(
      ['س', 'ل', 'ا', 'م'].map(async (each) => (await shaped(each))[0]?.path),
    );
    const joined = await shaped('سلام');
    expect(joined.every(({ path }) => alone.includes(path))).toBe(false);
    const line = await shaped('Mira سلام 12');
    const mira = await shaped('Mira ');
    // The Latin name comes first, the digits last: the line as a whole runs from left to right.
    expect(line.slice(0, 4).map(({ path }) => path)).toEqual(
      mira.slice(0, 4).map(({ path }) => path),
    );
    const end = (await shaped('س')).map(({ path }) => path);
    expect(end).not.toContain(line[5]?.path);
  });

  test('a character that no font has is drawn as a gap, not dropped', async () => {
    const glyphs = await shaped('a\u{10FFFD}b');
    expect(glyphs).toHaveLength(3);
    expect(glyphs[1]?.path).toBe(missing);
  });
});

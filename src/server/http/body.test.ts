import { describe, expect, test } from 'vitest';
import { jsonText, parseJson } from '@/server/http/body';

const posted = (body: string | ReadableStream<Uint8Array>, headers: Record<string, string> = {}) =>
  new Request('http://localhost/', {
    method: 'POST',
    body,
    headers: { 'content-type': 'application/json', ...headers },
    duplex: 'half',
  } as RequestInit);

describe('a body', () => {
  test('is read up to its limit and no further, whatever it says of its length', async () => {
    expect(await jsonText(posted('{"a":1}'), 7)).toBe('{"a":1}');
    await expect(jsonText(posted('{"a":12}'), 7)).rejects.toMatchObject({ code: 'TOO_LARGE' });
    let asked = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull: (controller) => {
        asked++;
        controller.enqueue(new Uint8Array(1000));
      },
    });
    await expect(jsonText(posted(endless), 5_000)).rejects.toMatchObject({ code: 'TOO_LARGE' });
    expect(asked).toBeLessThan(12);
  });

  test('nested without end is refused at once', () => {
    const began = performance.now();
    for (const deep of [
      '['.repeat(2_000_000),
      '{"a":'.repeat(500_000),
      `${'['.repeat(33)}${']'.repeat(33)}`,
    ])
      expect(() => parseJson(deep)).toThrow('request-unreadable');
    expect(performance.now() - began).toBeLessThan(1_000);
    expect(parseJson(`${'['.repeat(32)}${']'.repeat(32)}`)).toHaveLength(1);
  });

  test('brackets in a text are no nesting', () => {
    expect(
      parseJson(JSON.stringify({ text: `${'['.repeat(100)}"\\${'{'.repeat(100)}` })),
    ).toHaveProperty('text');
    expect(() => parseJson('{"a":"')).toThrow('request-unreadable');
    expect(parseJson('')).toEqual({});
  });
});

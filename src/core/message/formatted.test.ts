import fc from 'fast-check';
import { expect, test } from 'vitest';
import { formatted } from '@/core/message/formatted';

test('paragraphs, lists, bold, italic and addresses of the web are told apart', () => {
  expect(
    formatted('Dear Mira,\nsee **frame 40**.\n\n- the _lines_\n- https://yard.example/a, now'),
  ).toEqual([
    {
      kind: 'paragraph',
      lines: [
        [{ text: 'Dear Mira,' }],
        [{ text: 'see ' }, { text: 'frame 40', bold: true }, { text: '.' }],
      ],
    },
    {
      kind: 'list',
      lines: [
        [{ text: 'the ' }, { text: 'lines', italic: true }],
        [{ text: 'https://yard.example/a', href: 'https://yard.example/a' }, { text: ', now' }],
      ],
    },
  ]);
});

test('what only looks like formatting stands as it was written', () => {
  for (const line of ['TQ_412_GA_01', '2 * 3 ** 4', 'a_b', '_', '**', 'javascript:alert(1)'])
    expect(formatted(line)).toEqual([{ kind: 'paragraph', lines: [[{ text: line }]] }]);
});

test('no word is lost, and no address leads anywhere but to the web', () => {
  const pieces = fc.constantFrom(
    '**',
    '_',
    '- ',
    '\n',
    '\n\n',
    'frame',
    ' ',
    'https://',
    'a.example',
    '<b>',
  );
  fc.assert(
    fc.property(
      fc.array(pieces).map((some) => some.join('')),
      (text) => {
        const runs = formatted(text).flatMap(({ lines }) => lines.flat());
        const letters = (words: string) => words.replaceAll(/[^a-z]/g, '');
        expect(letters(runs.map((run) => run.text).join(''))).toBe(letters(text));
        const links = runs.flatMap(({ href }) => (href === undefined ? [] : [href]));
        expect(links.every((href) => /^https?:\/\//.test(href))).toBe(true);
      },
    ),
  );
});

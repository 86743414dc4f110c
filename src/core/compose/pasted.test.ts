import { describe, expect, test } from 'vitest';
import { parsePasted } from '@/core/compose/pasted';

describe('what is pasted', () => {
  test('is read with any usual separator', () => {
    expect(
      parsePasted('Mira Kolbe <Mira@Yard.example>; jonas@yard.example, @port.example\nnot one'),
    ).toEqual({
      people: [
        { address: 'mira@yard.example', name: 'Mira Kolbe', organisation: '' },
        { address: 'jonas@yard.example', name: '', organisation: '' },
      ],
      domains: ['@port.example'],
      unreadable: ['not', 'one'],
    });
  });

  test('is read from columns by their heads, in any order', () => {
    const text = 'Company\tFirst name\tLast name\tE-mail\nYard\tMira\tKolbe\tmira@yard.example\n\n';
    expect(parsePasted(text.replace('E-mail', 'Email')).people).toEqual([
      { address: 'mira@yard.example', name: 'Mira Kolbe', organisation: 'Yard' },
    ]);
  });

  test('is read from columns without heads: the address, a name and an organisation', () => {
    expect(
      parsePasted(
        'Mira Kolbe\tmira@yard.example\tBrackwater Yard\nJonas\tno address\n@port.example\t',
      ),
    ).toEqual({
      people: [
        { address: 'mira@yard.example', name: 'Mira Kolbe', organisation: 'Brackwater Yard' },
      ],
      domains: ['@port.example'],
      unreadable: ['Jonas no address'],
    });
  });

  test('is read whole, ten thousand lines with errors among them', () => {
    const lines = Array.from({ length: 10_000 }, (_each, i) =>
      i % 100 === 7
        ? `broken line ${String(i)}`
        : `Person ${String(i)}\tp${String(i)}@yard.example`,
    );
    const { people, unreadable } = parsePasted(lines.join('\n'));
    expect(people).toHaveLength(9_900);
    expect(unreadable).toHaveLength(100);
  });
});

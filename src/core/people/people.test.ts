import { fc, test as prop } from '@fast-check/vitest';
import { describe, expect, test } from 'vitest';
import type { StatedPerson } from '@/core/people/person';
import { planImport, type KnownPerson } from '@/core/people/plan';
import { formatOf, readPeople } from '@/core/people/read';
import { writePeople } from '@/core/people/write';

const checks = {
  isZone: (zone: string) => zone.includes('/'),
  isLanguage: (language: string) => /^[a-z]{2}(-[A-Z]{2})?$/.test(language),
};
const read = (text: string) => readPeople(text, checks);
const mira = {
  address: 'mira.kolbe@brackwater.example',
  name: 'Mira Kolbe',
  organisation: 'Brackwater Yard',
  zone: 'Europe/Oslo',
  language: 'nb',
  ownId: null,
  groups: [],
};

describe('CSV', () => {
  test.each([
    [
      'by commas, with a head in other words',
      'E-mail,Full Name,Company,Time zone,Language\nmira.kolbe@brackwater.example,Mira ' +
        'Kolbe,Brackwater Yard,Europe/Oslo,nb\n',
    ],
    [
      'by semicolons and quotes',
      '"name";"email";"organisation";"zone";"language"\r\n"Mira ' +
        'Kolbe";"Mira.Kolbe@BRACKWATER.example";"Brackwater Yard";"Europe/Oslo";"nb"\r\n',
    ],
    [
      'by tabs, with a byte order mark and names in two columns',
      '\uFEFFFirst name\tLast name\tEmail ' +
        'address\tOrg\tTZ\tlocale\nMira\tKolbe\tmira.kolbe@brackwater.example\tBrackwater ' +
        'Yard\tEurope/Oslo\tnb',
    ],
  ])('%s', (_name, text) => {
    expect(read(text)).toMatchObject({ format: 'csv', problems: [], people: [mira] });
  });

  test('an identifier and groups, by whatever sign they are separated', () => {
    const { people, problems } = read(
      'email,identifier,groups\na@yard.example,K-1,Bidders; Yards\nb@yard.example,K-1,Yards|Yards\n',
    );
    expect(people.map(({ ownId, groups }) => [ownId, groups])).toEqual([
      ['K-1', ['Bidders', 'Yards']],
      [null, ['Yards']],
    ]);
    expect(problems).toEqual([
      { line: 3, what: 'identifier K-1 stands on line 2 already; it is left out' },
    ]);
  });

  test('without a head: the addresses, and what stands beside them as a name', () => {
    expect(
      read('Mira Kolbe,mira@yard.example\njonas@yard.example\n').people.map(({ address, name }) => [
        address,
        name,
      ]),
    ).toEqual([
      ['mira@yard.example', 'Mira Kolbe'],
      ['jonas@yard.example', ''],
    ]);
  });

  test('errors are named with their lines, also behind fields of several lines; the good ones are taken', () => {
    const { people, problems } = read(
      'email,name,zone\na@yard.example,"A\nB",Europe/Oslo\n\nno ' +
        'address,X,\n,Y,\nA@YARD.example,again,\nc@yard.example,C,Nowhere\n',
    );
    expect(people.map(({ line, address, zone }) => [line, address, zone])).toEqual([
      [2, 'a@yard.example', 'Europe/Oslo'],
      [8, 'c@yard.example', null],
    ]);
    expect(problems.map(({ line, what }) => [line, what])).toEqual([
      [5, '“no address” is not an email address'],
      [6, 'there is no email address here'],
      [7, 'a@yard.example stands on line 2 already'],
      [8, '“Nowhere” is not a time zone; it is left out'],
    ]);
  });
});

describe('LDIF and vCard', () => {
  test('entries with lines that go on, base64 and remarks', () => {
    const text =
      'version: 1\n\n# people\ndn: cn=Mira Kolbe,o=Brackwater\nobjectClass: person\nmail: ' +
      'mira.kolbe@brack\n water.example\ncn:: TWlyYSBLb2xiZQ==\no: Brackwater Yard\n\ndn: ' +
      'ou=people\nobjectClass: organizationalUnit\n\ndn: cn=Nobody\ncn: Nobody\n\nnot ldif\n';
    const { format, people, problems } = read(text);
    expect([
      format,
      people.map(({ address, name, organisation }) => [address, name, organisation]),
    ]).toEqual(['ldif', [['mira.kolbe@brackwater.example', 'Mira Kolbe', 'Brackwater Yard']]]);
    expect(problems.map(({ line }) => line)).toEqual([14, 17]);
  });

  test('cards of both versions, with groups, parameters, escapes and folded lines', () => {
    const text =
      'BEGIN:VCARD\r\nVERSION:3.0\r\nN:Kolbe;Mira;;;\r\n' +
      'item1.EMAIL;TYPE=INTERNET:mira.kolbe@brackwater.exam\r\n ple\r\n' +
      'EMAIL:second@brackwater.example\r\nORG:Brackwater\\, Yard;Drawing office\r\nEND:VCARD\r\n' +
      'BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Jonas\\; Feld\r\nEMAIL:mailto:jonas@brackwater.example\r\n' +
      'TZ:Europe/Oslo\r\nLANG:nb\r\nEND:VCARD\r\n' +
      'BEGIN:VCARD\r\nFN:Nobody\r\nEND:VCARD\r\nBEGIN:VCARD\r\nEMAIL:cut@x.example\r\n';
    const { format, people, problems } = read(text);
    expect(format).toBe('vcard');
    expect(
      people.map(({ address, name, organisation, zone }) => [address, name, organisation, zone]),
    ).toEqual([
      ['mira.kolbe@brackwater.example', 'Mira Kolbe', 'Brackwater, Yard', null],
      ['jonas@brackwater.example', 'Jonas; Feld', '', 'Europe/Oslo'],
    ]);
    expect(problems.map(({ line }) => line)).toEqual([16, 19]);
  });

  test.each([
    ['', 'csv'],
    ['dn: x', 'ldif'],
    ['  begin:vcard', 'vcard'],
    ['version:1\n', 'ldif'],
    ['a@b.example', 'csv'],
  ])('%j is %s', (text, format) => {
    expect(formatOf(text)).toBe(format);
  });
});

const word = fc
  .string({ minLength: 1, maxLength: 20, unit: 'grapheme' })
  .map((text) => text.replaceAll(/[\p{C}\p{Z}]+/gu, ' ').trim())
  .filter((text) => text !== '' && !/^[=+\-@']/.test(text) && text === text.normalize());
const person = fc.record({
  address: fc
    .stringMatching(/^[a-z]{1,8}[+][a-z0-9]{1,5}$/)
    .map((local) => `${local}@yard.example`),
  name: word,
  organisation: word,
  zone: fc.option(fc.constant('Europe/Oslo'), { nil: null }),
  language: fc.option(fc.constant('nb'), { nil: null }),
  hasId: fc.boolean(),
  groups: fc.uniqueArray(
    word.filter((name) => !/[;|,]/.test(name)),
    { maxLength: 3 },
  ),
});

describe('what goes out comes back', () => {
  prop.prop([
    fc.uniqueArray(person, { selector: ({ address }) => address, maxLength: 8 }),
    fc.constantFrom('csv' as const, 'ldif' as const, 'vcard' as const),
  ])('in every format', (drawn, format) => {
    const people = drawn.map(({ hasId, ...each }) => ({
      ...each,
      ownId: hasId ? `K-${each.address}` : null,
    }));
    const { people: back, problems } = read(writePeople(people, format));
    expect(problems).toEqual([]);
    expect(back.map(({ line: _line, ...each }) => each)).toEqual(
      people.map((each) => (format === 'ldif' ? { ...each, zone: null } : each)),
    );
  });

  prop.prop([fc.string({ maxLength: 400 })])('any text is read without harm', (text) => {
    const { people } = read(text);
    expect(new Set(people.map(({ address }) => address)).size).toBe(people.length);
  });
});

describe('the plan', () => {
  const known = new Map<string, KnownPerson>([[mira.address, { id: 'rcp_1', ...mira }]]);
  const stated = (change: Partial<Omit<StatedPerson, 'line'>>): StatedPerson => ({
    line: 2,
    ...mira,
    ...change,
  });

  test('tells new from changed from the same; what is empty changes nothing; nobody goes', () => {
    expect(planImport([stated({}), stated({ address: 'new@yard.example' })], known)).toMatchObject({
      same: 1,
      changed: [],
      added: [{ address: 'new@yard.example' }],
    });
    expect(
      planImport([{ ...stated({ name: '', organisation: '' }), zone: null, language: null }], known)
        .same,
    ).toBe(1);
    const [change] = planImport([stated({ organisation: 'Kelder', name: '' })], known).changed;
    expect(change?.after).toEqual({ id: 'rcp_1', ...mira, organisation: 'Kelder' });
  });

  test('a domain one letter away from a known one is pointed out once, with how many', () => {
    expect(
      planImport(
        [
          stated({ address: 'a@brackvater.example' }),
          stated({ address: 'b@brackvater.example' }),
          stated({ address: 'c@other.example' }),
        ],
        known,
      ).doubtful,
    ).toEqual([{ domain: 'brackvater.example', like: 'brackwater.example', people: 2 }]);
  });

  test('an identifier that is somebody else’s here is left out, and said', () => {
    const taken = new Map<string, KnownPerson>([
      [mira.address, { id: 'rcp_1', ...mira, ownId: 'K-1' }],
    ]);
    const other = stated({ address: 'new@yard.example', ownId: 'K-1' });
    const plan = planImport([other, stated({ ownId: 'K-2' })], taken);
    expect(plan.problems).toEqual([
      { line: 2, what: `identifier K-1 is ${mira.address} here; it is left out` },
    ]);
    expect(plan.added[0]?.ownId).toBeNull();
    expect(plan.changed[0]?.after.ownId).toBe('K-2');
  });
});

import type { Right } from '@/core/policy/rights';
import { createChance } from './chance';
import type { Paper } from './drawings';
import { people, type Person, type DemoDispatch } from './story';

// What else the office sends in half a year: everyday business around the story.

const chance = createChance(1851);
const pick = <T>(from: readonly T[]): T => from[Math.floor(chance() * from.length)] as T;
const several = <T>(from: readonly T[], count: number): T[] =>
  [...from]
    .map((item) => ({ item, order: chance() }))
    .sort((a, b) => a.order - b.order)
    .slice(0, count)
    .map(({ item }) => item);

const titles: readonly (readonly [string, string, Paper['kind'], number])[] = [
  ['HS-01', 'Hydrostatics', 'list', 6],
  ['ST-01', 'Stability booklet', 'text', 14],
  ['SE-02', 'Shell expansion', 'lines', 2],
  ['DK-01', 'Car deck arrangement', 'arrangement', 2],
  ['DK-02', 'Passenger deck arrangement', 'arrangement', 2],
  ['ER-01', 'Engine room arrangement', 'arrangement', 3],
  ['SH-01', 'Shafting arrangement', 'midship', 2],
  ['PR-01', 'Propeller drawing', 'lines', 1],
  ['RD-01', 'Rudder and stock', 'midship', 1],
  ['PP-03', 'Piping principles', 'text', 7],
  ['EL-01', 'One-line diagram', 'arrangement', 2],
  ['EL-02', 'Battery room', 'arrangement', 1],
  ['EL-03', 'Cable list', 'list', 11],
  ['VE-01', 'Ventilation plan', 'arrangement', 2],
  ['FR-01', 'Fire control plan', 'arrangement', 2],
  ['LS-01', 'Life-saving plan', 'arrangement', 2],
  ['AN-01', 'Anchoring and mooring', 'midship', 1],
  ['PA-01', 'Paint specification', 'text', 5],
  ['BR-01', 'Bow ramp mechanism', 'midship', 2],
  ['BR-02', 'Bow ramp calculation', 'text', 9],
  ['PH-01', 'The slip in autumn', 'photographs', 3],
  ['PH-02', 'Model basin, first runs', 'photographs', 2],
  ['NO-01', 'Noise prediction', 'text', 8],
  ['MT-01', 'Model test report', 'text', 16],
  ['CO-02', 'Contract drawings index', 'list', 3],
  ['MN-04', 'Minutes of the fourth review', 'text', 2],
];
export const officePapers: readonly Paper[] = titles.map(([code, title, kind, pages]) => ({
  reference: `TQ-412-${code}`,
  title,
  kind,
  pages,
}));

type House = {
  readonly name: string;
  readonly domain: string;
  readonly network: string;
  readonly staff: readonly string[];
};
const houses: readonly House[] = [
  {
    name: 'Brackwater Yard',
    domain: 'brackwater.example',
    network: '203.0.113.2',
    staff: ['Hanne Dahl', 'Per Osten', 'Silje Marr'],
  },
  {
    name: 'Kelder Shipworks',
    domain: 'kelder.example',
    network: '198.51.100.1',
    staff: ['Bo Rask', 'Ines Calder', 'Yusuf Adan'],
  },
  {
    name: 'Lowtide Engineering',
    domain: 'lowtide.example',
    network: '203.0.113.4',
    staff: ['Greta Holt', 'Ivo Senn', 'Maud Perrin', 'Olav Strand'],
  },
  {
    name: 'Meridian Class Bureau',
    domain: 'meridian.example',
    network: '192.0.2.4',
    staff: ['Tove Lind', 'Arno Beck', 'Sunniva Kray'],
  },
  {
    name: 'Harbour Board of Aldery',
    domain: 'harbour-aldery.example',
    network: '192.0.2.7',
    staff: ['Edda Moll', 'Jens Kvam', 'Rufus Thorne'],
  },
  {
    name: 'Tide & Timber Quarterly',
    domain: 'tideandtimber.example',
    network: '192.0.2.9',
    staff: ['Otto Wray'],
  },
  {
    name: 'Ferrow Boatbuilders',
    domain: 'ferrow.example',
    network: '198.51.100.8',
    staff: ['Lena Ask', 'Karl Voss', 'Britt Hagen'],
  },
  {
    name: 'Pell Propulsion',
    domain: 'pell.example',
    network: '203.0.113.12',
    staff: ['Aksel Pell', 'Dora Finch', 'Emil Sorby', 'Freja Lunde', 'Hugo Tamm', 'Isa Brandvold'],
  },
  {
    name: 'Norrmark Electric',
    domain: 'norrmark.example',
    network: '198.51.100.4',
    staff: ['Kaia Norr', 'Leif Orre', 'Mina Sjolie', 'Nora Veil', 'Oda Quist', 'Pal Reiner'],
  },
  {
    name: 'Sable Coatings',
    domain: 'sable.example',
    network: '203.0.113.15',
    staff: ['Ragna Sable', 'Stig Aune', 'Tiril Mohn', 'Una Berge'],
  },
  {
    name: 'Aldery Ferries',
    domain: 'aldery-ferries.example',
    network: '192.0.2.12',
    staff: [
      'Vidar Klepp',
      'Wenche Ruud',
      'Ylva Stene',
      'Anton Gray',
      'Berta Noll',
      'Claes Idman',
      'Dina Foss',
      'Elias Trond',
    ],
  },
  {
    name: 'Quay Street Law',
    domain: 'quaystreet.example',
    network: '192.0.2.15',
    staff: ['Fiona Marsh', 'Gustav Lee', 'Hedda Crane', 'Iver Nash', 'Jorun Pike', 'Kjell Moss'],
  },
];
export const officePeople: readonly Person[] = houses.flatMap(({ name, domain, network, staff }) =>
  staff.map((person, i) => ({
    name: person,
    organisation: name,
    address: `${person.toLowerCase().replaceAll(' ', '.')}@${domain}`,
    network: `${network}${String((i % 9) + 1)}`,
  })),
);

const subjects = [
  'Engine room, for comments',
  'Electrical, first issue',
  'Hull form and stability',
  'Safety plans for approval',
  'Paint and outfit',
  'Propulsion interface',
  'Deck arrangements',
  'Bow ramp',
  'Noise and vibration',
  'For the owner’s review',
  'Shafting line',
  'Contract drawings',
  'Batteries and cables',
  'Piping, second issue',
  'Ventilation',
  'Model test results',
  'Rudder and propeller',
  'Mooring arrangement',
  'For your lawyers',
  'Review minutes',
];
const rights: readonly (readonly Right[])[] = [
  ['read'],
  ['read'],
  ['read', 'print'],
  ['read', 'copy'],
  ['read', 'copy', 'print'],
  ['read', 'copy', 'print', 'keep'],
];

/** One every nine days or so, to two or three organisations, for a few weeks each. */
export const officeDispatches: readonly DemoDispatch[] = subjects.map((subject, i) => {
  const day = -178 + i * 9 + Math.floor(chance() * 4);
  const asked = several(houses, 1 + Math.floor(chance() * 3)).map((house) => house.name);
  const given = pick(rights);
  return {
    key: `office-${String(i)}`,
    day,
    subject,
    note: chance() < 0.5 ? '' : 'For your information and comments.',
    papers: several(officePapers, 1 + Math.floor(chance() * 3)).map((paper) => paper.reference),
    to: several(
      [...officePeople, ...Object.values(people)].filter((person) =>
        asked.includes(person.organisation),
      ),
      3 + Math.floor(chance() * 6),
    ),
    rights: given,
    prints: given.includes('print') && !given.includes('keep') ? 3 : null,
    from: null,
    until: chance() < 0.08 ? null : day + 21 + Math.floor(chance() * 45),
  };
});

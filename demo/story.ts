import type { Right } from '@/core/policy/rights';
import type { Paper } from './drawings';

/** The papers of Hull 412. */
export const papers: readonly Paper[] = [
  { reference: 'TQ-412-LP-01', title: 'Lines plan rev. C', kind: 'lines', pages: 2 },
  { reference: 'TQ-412-GA-03', title: 'General arrangement', kind: 'arrangement', pages: 4 },
  { reference: 'TQ-412-MS-02', title: 'Midship section', kind: 'midship', pages: 1 },
  { reference: 'TQ-412-SP-01', title: 'Outline specification', kind: 'text', pages: 12 },
  { reference: 'TQ-412-WL-02', title: 'Weight list', kind: 'list', pages: 9 },
  { reference: 'TQ-412-TS-01', title: 'Tender schedule', kind: 'text', pages: 3 },
];

export type Person = {
  readonly address: string;
  readonly name: string;
  readonly organisation: string;
  readonly network: string;
};

export const people = {
  mira: {
    address: 'mira.kolbe@brackwater.example',
    name: 'Mira Kolbe',
    organisation: 'Brackwater Yard',
    network: '203.0.113.24',
  },
  jonas: {
    address: 'jonas.feld@brackwater.example',
    name: 'Jonas Feld',
    organisation: 'Brackwater Yard',
    network: '203.0.113.25',
  },
  ansel: {
    address: 'a.oduya@kelder.example',
    name: 'Ansel Oduya',
    organisation: 'Kelder Shipworks',
    network: '198.51.100.12',
  },
  petra: {
    address: 'petra.lind@kelder.example',
    name: 'Petra Lind',
    organisation: 'Kelder Shipworks',
    network: '198.51.100.13',
  },
  tomas: {
    address: 't.iversen@lowtide.example',
    name: 'Tomas Iversen',
    organisation: 'Lowtide Engineering',
    network: '203.0.113.61',
  },
  rana: {
    address: 'solheim@meridian.example',
    name: 'Rana Solheim',
    organisation: 'Meridian Class Bureau',
    network: '192.0.2.40',
  },
  cosmo: {
    address: 'vane@harbour-aldery.example',
    name: 'Cosmo Vane',
    organisation: 'Harbour Board of Aldery',
    network: '192.0.2.77',
  },
  elin: {
    address: 'elin@tideandtimber.example',
    name: 'Elin Marsh',
    organisation: 'Tide & Timber Quarterly',
    network: '192.0.2.90',
  },
  oskar: {
    address: 'o.brandt@ferrow.example',
    name: 'Oskar Brandt',
    organisation: 'Ferrow Boatbuilders',
    network: '198.51.100.80',
  },
  wilma: {
    address: 'wilma.aske@ferrow.example',
    name: 'Wilma Aske',
    organisation: 'Ferrow Boatbuilders',
    network: '198.51.100.81',
  },
} as const satisfies Record<string, Person>;

/** Times are days from the day the demo is started: negative lies behind. */
export type DemoDispatch = {
  readonly key: string;
  readonly day: number;
  readonly subject: string;
  readonly note: string;
  /** Absent: a link. */
  readonly form?: 'file' | 'both';
  /** Hours that it stays readable on their own machine without asking; absent: it does not open there. */
  readonly offlineHours?: number;
  readonly papers: readonly string[];
  readonly to: readonly Person[];
  readonly rights: readonly Right[];
  readonly prints: number | null;
  readonly from: number | null;
  readonly until: number | null;
};

export const dispatches: readonly DemoDispatch[] = [
  {
    key: 'prequalify',
    day: -60,
    subject: 'Hull 412: papers to qualify',
    note: 'Please tell us by the end of the month whether you will bid.',
    papers: ['TQ-412-TS-01', 'TQ-412-SP-01'],
    to: [
      people.mira,
      people.jonas,
      people.ansel,
      people.petra,
      people.tomas,
      people.oskar,
      people.wilma,
    ],
    rights: ['read'],
    prints: null,
    from: null,
    until: -25,
  },
  {
    key: 'tender',
    day: -23,
    subject: 'Tender round 1, Hull 412',
    note: 'The drawings for round 1. Prices by noon of the last day, please.',
    papers: ['TQ-412-LP-01', 'TQ-412-GA-03', 'TQ-412-WL-02'],
    to: [
      people.mira,
      people.jonas,
      people.ansel,
      people.petra,
      people.tomas,
      people.oskar,
      people.wilma,
    ],
    rights: ['read', 'print'],
    prints: 2,
    from: null,
    until: 8,
  },
  {
    key: 'survey',
    day: -20,
    subject: 'For plan approval',
    note: 'Midship section and weights for your comments.',
    papers: ['TQ-412-MS-02', 'TQ-412-WL-02'],
    to: [people.rana],
    rights: ['read', 'comment', 'copy'],
    prints: null,
    from: null,
    until: 2,
    form: 'both',
    offlineHours: 48,
  },
  {
    key: 'harbour',
    day: -15,
    subject: 'General arrangement for the berth study',
    note: '',
    papers: ['TQ-412-GA-03'],
    to: [people.cosmo],
    rights: ['read', 'copy', 'print', 'keep'],
    prints: null,
    from: null,
    until: null,
    form: 'both',
  },
  {
    key: 'press',
    day: -9,
    subject: 'Before the announcement',
    note: 'You will be able to open this three days from now. Not before, and not for quoting.',
    papers: ['TQ-412-GA-03'],
    to: [people.elin],
    rights: ['read'],
    prints: null,
    from: 3,
    until: 30,
  },
];

// What goes with the berth study in other kinds of file, as programs of an office would write them.
import ExcelJS from 'exceljs';
import { createChance } from './chance';
import { takePicture } from './photographs';
import { wordFile, wordParagraph, wordTable } from './word-file';

export type DemoFile = {
  readonly reference: string;
  readonly title: string;
  readonly fileName: string;
  readonly make: () => Promise<Uint8Array>;
};

const ITEMS = ['Fender', 'Bollard', 'Capping beam', 'Sheet pile', 'Tie rod', 'Crane rail'];

async function weights(): Promise<Uint8Array> {
  const chance = createChance(380);
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Weights', { views: [{ state: 'frozen', ySplit: 1 }] });
  const heading = [
    'Item',
    'Section',
    'From start (m)',
    'Length (m)',
    'Weight (t)',
    'Share',
    'Seen',
  ];
  const months = ['Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct'].map((month) => `${month} 2026`);
  sheet.addRow([...heading, ...months, 'Remark']).font = { bold: true };
  for (let row = 0; row < 180; row++)
    sheet.addRow([
      `${ITEMS[row % ITEMS.length] ?? ''} ${String(row + 1)}`,
      `S${String(Math.floor(row / 20) + 1)}`,
      row * 1.25,
      0.4 + chance() * 3,
      chance() * 12,
      chance(),
      new Date(Date.UTC(2026, 9, 1 + (row % 28))),
      ...months.map(() => Math.round(chance() * 40) / 10),
      row % 9 === 0 ? 'Corroded below low water; measure again at springs' : '',
    ]);
  sheet.getColumn(4).numFmt = '0.00';
  sheet.getColumn(5).numFmt = '#,##0.00';
  sheet.getColumn(6).numFmt = '0.0%';
  sheet.getColumn(7).numFmt = 'dd/mm/yyyy';
  const totals = book.addWorksheet('Totals');
  totals.addRow(['Item', 'Pieces']).font = { bold: true };
  for (const item of ITEMS) totals.addRow([item, 30]);
  return new Uint8Array(await book.xlsx.writeBuffer());
}

const CLAUSES = [
  ['Scope', 'This specification covers the repair of the east quay from section 1 to section 9.'],
  ['Materials', 'Timber is of durability class 1. Steel below low water is coated twice.'],
  [
    'Levels',
    'All levels are above chart datum. Ναυτικά μίλια, сантиметры и メートル are converted.',
  ],
  ['Working times', 'Work in the water takes place within two hours of low water at neaps.'],
] as const;

async function specification(): Promise<Uint8Array> {
  return wordFile([
    wordParagraph('Repair of the east quay', 'Heading1'),
    ...CLAUSES.flatMap(([title, text], i) => [
      wordParagraph(`${String(i + 1)} ${title}`, 'Heading2'),
      ...Array.from({ length: 4 }, () => wordParagraph(`${text} `.repeat(3))),
    ]),
    wordTable([
      ['Section', 'Length (m)', 'Depth (m)'],
      ['S1', '25.00', '4.20'],
      ['S2', '25.00', '4.85'],
      ['S3', '24.60', '5.10'],
    ]),
  ]);
}

const NOTES = `# Notes on the quay

Walked on 12 November 2026, two hours before low water.

1. Fender 14 is **missing**.
2. The crane rail lies 8 mm low at section 6.
3. Bollard 3 turns in its seat.

| Section | Open joint (mm) |
|---------|-----------------|
| S4      | 12              |
| S6      | 31              |

> Ask the harbour board whether the ladder at S7 is theirs.
`;

const text = (content: string) => () => Promise.resolve(new TextEncoder().encode(content));

const LEVELS = Array.from(
  { length: 60 },
  (_, i) => `P${String(i + 1)},${String(i * 2.5)},${(2.4 + Math.sin(i / 5) / 10).toFixed(3)}`,
);

/** A model in a kind of file that no reader shows. */
function model(): Promise<Uint8Array> {
  const chance = createChance(381);
  return Promise.resolve(Uint8Array.from({ length: 48_000 }, () => Math.floor(chance() * 256)));
}

export const berthFiles: readonly DemoFile[] = [
  {
    reference: 'TQ-380-BS-02',
    title: 'Berth study, weights',
    fileName: 'Berth weights.xlsx',
    make: weights,
  },
  {
    reference: 'TQ-380-BS-03',
    title: 'Berth study, specification',
    fileName: 'Berth specification.docx',
    make: specification,
  },
  {
    reference: 'TQ-380-BS-04',
    title: 'Berth study, notes',
    fileName: 'Berth notes.md',
    make: text(NOTES),
  },
  {
    reference: 'TQ-380-BS-05',
    title: 'Berth study, levels',
    fileName: 'Levels.csv',
    make: text(`Point,Chainage (m),Level (m)\n${LEVELS.join('\n')}\n`),
  },
  {
    reference: 'TQ-380-BS-06',
    title: 'East quay at low water',
    fileName: 'East quay.jpg',
    make: async () => new Uint8Array(await takePicture(382)),
  },
  {
    reference: 'TQ-380-BS-07',
    title: 'Berth study, model',
    fileName: 'Berth.quaymodel',
    make: model,
  },
];

'use client';

import type { DefaultsRow } from '@/contracts/defaults';
import { watermarkUnder } from '@/core/policy/defaults';
import { fillTokens } from '@/core/watermark/tokens';
import type { RecipientDraft } from '@/ui/recipients/use-recipients';
import { momentText } from '@/core/base/moment-text';
import { useZone } from '@/ui/time/use-zone';

/** Documents under different levels differ in what stands on them; so many are shown. */
const MOST_SAMPLES = 3;

type Props = {
  readonly around: readonly (readonly DefaultsRow[])[];
  readonly watermark: string;
  /** Whose pages are shown; where nobody is named, nobody's are. */
  readonly person: RecipientDraft | null;
  readonly reference: string;
  readonly now: number;
};

/** What will stand on the pages. */
export function WatermarkSamples({ around, watermark, person, reference, now }: Props) {
  const zone = useZone();
  const moment = momentText(now, zone);
  const address = person?.address ?? 'their email address';
  const values = {
    name:
      person === null
        ? 'their name'
        : person.name === ''
          ? (address.split('@')[0] ?? '')
          : person.name,
    address,
    organisation:
      person === null || person.organisation === '' ? 'their organisation' : person.organisation,
    date: moment.slice(0, -6),
    time: moment.slice(-5),
    network: '192.0.2.14',
    reference,
  };
  const marks =
    around.length === 0 ? [watermark] : around.map((rules) => watermarkUnder(watermark, rules));
  const samples = [...new Set(marks)]
    .slice(0, MOST_SAMPLES)
    .map((mark) => fillTokens(mark, values));
  return (
    <>
      <h2>Watermark, for {person === null ? 'each person who opens it' : person.address}</h2>
      {samples.map((sample) => (
        <p key={sample} className="figure">
          {sample === '' ? <span className="lamp">none</span> : sample}
        </p>
      ))}
    </>
  );
}

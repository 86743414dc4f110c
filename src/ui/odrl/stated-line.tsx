import type { StatedTerms } from '@/contracts/odrl';
import { conditionLines } from '@/core/policy/condition-lines';
import { Moment } from '@/ui/time/moment';
import { rightsLine } from '@/core/policy/rights-line';

function End({ end }: Pick<StatedTerms, 'end'>) {
  if ('days' in end) return end.days === null ? 'no end' : `${String(end.days)} days`;
  return (
    <>
      {end.from !== null && (
        <>
          from <Moment at={end.from} />{' '}
        </>
      )}
      {end.until === null ? (
        'no end'
      ) : (
        <>
          until <Moment at={end.until} />
        </>
      )}
    </>
  );
}

/** Terms of a file in a line. */
export function StatedLine({
  terms: { rights, prints, conditions, end },
}: {
  readonly terms: StatedTerms;
}) {
  return (
    <span>
      {rightsLine(rights, prints)}; <End end={end} />
      {conditionLines(conditions, 'their zone').map((line) => (
        <span key={line}>; {line}</span>
      ))}
    </span>
  );
}

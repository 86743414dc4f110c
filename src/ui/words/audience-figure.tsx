import { audience } from '@/ui/words/addressee-words';

/** How many people it is for; more than can be counted where a link or a domain lets others in. */
export function AudienceFigure({
  people,
  unknown,
}: {
  readonly people: number;
  readonly unknown: boolean;
}) {
  if (!unknown) return people;
  return (
    <span title={audience(people, true)}>{people === 0 ? 'unknown' : `${String(people)}+`}</span>
  );
}

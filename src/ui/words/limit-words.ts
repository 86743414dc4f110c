import type { CeilingLevel, Limits } from '@/core/policy/ceiling';
import { rightsLine } from '@/ui/words/rights-words';

export const levelWords: Record<CeilingLevel, string> = { organisation: 'organisation', marking: 'marking', folder: 'folder', document: 'document' };

/** What a ceiling allows at most, a line each: `reads · prints`, `30 days`. */
export function limitLines({ rights, days, prints, opens, countries, networks }: Limits): string[] {
  return [
    rights === null ? '' : `at most ${rightsLine(rights, null)}`,
    days === null ? '' : `ends after ${String(days)} ${days === 1 ? 'day' : 'days'}`,
    prints === null ? '' : `${String(prints)} ${prints === 1 ? 'print' : 'prints'} each`,
    opens === null ? '' : `${String(opens)} ${opens === 1 ? 'open' : 'opens'} each`,
    countries === null ? '' : `only from ${countries.join(', ')}`,
    networks === null ? '' : `only from ${networks.join(', ')}`,
  ].filter((line) => line !== '');
}

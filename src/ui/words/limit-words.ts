import { wordsOfLayers } from '@/ui/watermark/mark-words';
import type { Limits } from '@/core/policy/ceiling';
import type { LevelDefaults } from '@/core/policy/defaults';
import type { Level } from '@/core/policy/levels';
import { spanText } from '@/core/policy/condition-lines';
import { rightsLine } from '@/core/policy/rights-line';

export const levelWords: Record<Level, string> = {
  organisation: 'organisation',
  marking: 'marking',
  folder: 'folder',
  document: 'document',
};

/** The same as a heading, in a cell or on a choice. */
export const levelNames: Record<Level, string> = {
  organisation: 'Organisation',
  marking: 'Marking',
  folder: 'Folder',
  document: 'Document',
};

/** `the folder Hull 412`; of the organisation `the organisation`. */
export function levelOf({ level, name }: { readonly level: Level; readonly name: string }): string {
  return level === 'organisation'
    ? 'the organisation'
    : `the ${levelWords[level]} ${name === '' ? 'that no longer exists' : name}`;
}

function offlineLine(offline: NonNullable<Limits['offline']>): string {
  if (offline === 'never') return 'never on people’s own machines';
  return offline === 0
    ? 'on people’s own machines asking at every open'
    : `on people’s own machines at most ${spanText(offline)} without asking again`;
}

/** What a ceiling allows at most, a line each: `Read · Print`, `30 days`. */
export function limitLines({
  rights,
  days,
  prints,
  opens,
  countries,
  networks,
  passkey,
  offline,
}: Limits): string[] {
  return [
    rights === null ? '' : `at most ${rightsLine(rights, null)}`,
    days === null ? '' : `ends after ${String(days)} ${days === 1 ? 'day' : 'days'}`,
    prints === null ? '' : `${String(prints)} ${prints === 1 ? 'print' : 'prints'} each`,
    opens === null ? '' : `${String(opens)} ${opens === 1 ? 'open' : 'opens'} each`,
    countries === null ? '' : `only from ${countries.join(', ')}`,
    networks === null ? '' : `only from ${networks.join(', ')}`,
    passkey === true ? 'with a passkey besides the email address' : '',
    offline === null ? '' : offlineLine(offline),
  ].filter((line) => line !== '');
}

/** What dispatches below a level begin with, a line each, and what stands on every page. */
export function defaultLines({
  defaults: { rights, days, prints },
  watermark,
}: Pick<LevelDefaults, 'defaults' | 'watermark'>): string[] {
  return [
    rights === null ? '' : rightsLine(rights, prints),
    days === null
      ? ''
      : days === 'no-end'
        ? 'no end'
        : `${String(days)} ${days === 1 ? 'day' : 'days'}`,
    watermark.length === 0 ? '' : `“${wordsOfLayers(watermark)}” on every page`,
  ].filter((line) => line !== '');
}

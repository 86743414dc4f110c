import 'server-only';
import { valueWords } from '@/core/insight/value-words';
import type { Dimension } from '@/core/insight/filter';
import { KINDS } from '@/core/insight/kinds';
import { OUTCOMES } from '@/core/ledger/entry';
import type { LedgerValue } from '@/contracts/ledger';
import { findByText } from '@/server/repositories/overview/find-repository';
import {
  findDevices,
  findStaffByText,
  findVersions,
} from '@/server/repositories/overview/find-values-repository';
import type { Deps, StaffActor } from '@/server/services/base/deps';
import { filterOf } from '@/server/services/ledger/list-entries';

/** Values of one dimension that are offered at most. */
const MOST = 8;

/** What the ledger can be narrowed to whose name holds a text: somebody, something, a reason, a place. */
export async function findValues(
  deps: Deps,
  actor: StaffActor,
  { text }: { readonly text: string },
): Promise<{ readonly values: readonly LedgerValue[] }> {
  const db = deps.db.read;
  const [[documents, people, dispatches], staff, devices, versions, counts] = await Promise.all([
    findByText(db, text, MOST),
    findStaffByText(db, text, MOST),
    findDevices(db, text, MOST),
    findVersions(db, text, MOST),
    deps.counts.count(filterOf(actor, {})),
  ]);
  const wanted = text.toLowerCase().replaceAll(' ', '-');
  const counted = (
    dimension: Dimension,
    all: readonly { readonly value: string; readonly entries: number }[],
  ): LedgerValue[] =>
    all
      .filter(({ value }) => value.toLowerCase().replaceAll(' ', '-').includes(wanted))
      .slice(0, MOST)
      .map(({ value, entries }) => ({
        dimension,
        value,
        name: value,
        under: `${entries.toLocaleString('en-GB')} entries`,
      }));
  return {
    values: [
      ...people.map(({ id, name, address }) => ({
        dimension: 'recipient' as const,
        value: id,
        name: name === '' ? address : name,
        under: address,
      })),
      ...documents.map(({ id, title, reference }) => ({
        dimension: 'document' as const,
        value: id,
        name: title,
        under: reference,
      })),
      ...versions.map(({ id, number, title }) => ({
        dimension: 'version' as const,
        value: id,
        name: valueWords.version(title, number),
        under: valueWords.thisVersion,
      })),
      ...dispatches.map(({ id, subject, reference }) => ({
        dimension: 'dispatch' as const,
        value: id,
        name: reference,
        under: subject,
      })),
      ...staff.map(({ id, name, email }) => ({
        dimension: 'actor' as const,
        value: id,
        name,
        under: valueWords.didIt(email),
      })),
      ...people.map(({ id, name, address }) => ({
        dimension: 'actor' as const,
        value: id,
        name: name === '' ? address : name,
        under: valueWords.didItThemselves,
      })),
      ...devices.map(({ id, label, address }) => ({
        dimension: 'device' as const,
        value: id,
        name: label,
        under: valueWords.deviceOf(address),
      })),
      ...counted('organisation', counts.organisations),
      ...counted('place', counts.places),
      ...counted('reason', counts.reasons),
      ...OUTCOMES.filter((outcome) => outcome.includes(wanted)).map((outcome) => ({
        dimension: 'outcome' as const,
        value: outcome,
        name: outcome,
        under: '',
      })),
      ...KINDS.filter((kind) => kind.includes(wanted)).map((kind) => ({
        dimension: 'kind' as const,
        value: kind,
        name: kind,
        under: '',
      })),
    ],
  };
}

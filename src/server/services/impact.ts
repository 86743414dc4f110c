import 'server-only';
import { setImmediate } from 'node:timers/promises';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import type { Impact } from '@/core/policy/impact';
import { RIGHTS } from '@/core/policy/rights';
import type { ImpactFound } from '@/contracts/impact';
import { alikeGrants, type AlikeGrants, type AskedOf } from '@/server/repositories/ceiling-repository';
import { findDocuments } from '@/server/repositories/document-repository';
import { recipientsByIds, whatStandsForMany } from '@/server/repositories/people-repository';
import type { Deps } from '@/server/services/deps';

/** Grants looked at before others get their turn. */
const AT_ONCE = 5_000;
/** Names shown; the numbers count them all. */
const SHOWN = 100;

type Shown = { readonly recipient: RecipientId; readonly document: DocumentId; readonly until: number | null; readonly impact: Impact };
type Affected = {
  /** What it does, to how many grants each time. */
  readonly impacts: readonly { readonly impact: Impact; readonly grants: number }[];
  readonly people: ReadonlySet<RecipientId>;
  readonly documents: ReadonlySet<DocumentId>;
  readonly shown: readonly Shown[];
};

/** Every live grant that a change would touch, found without holding up anybody else, and added up as they are found. */
async function affectedBy(deps: Pick<Deps, 'db'>, now: number, asked: AskedOf, judge: (grants: AlikeGrants) => Impact | null): Promise<Affected> {
  const [impacts, shown]: [{ impact: Impact; grants: number }[], Shown[]] = [[], []];
  const [people, documents] = [new Set<RecipientId>(), new Set<DocumentId>()];
  for (let at = 0; ;) {
    const { alike, grants: seen, last } = await alikeGrants(deps.db.read, now, asked, at, AT_ONCE);
    for (const grants of alike) {
      const impact = judge(grants);
      if (impact === null) continue;
      impacts.push({ impact, grants: grants.recipients.length });
      for (const recipient of grants.recipients) people.add(recipient);
      for (const document of grants.documents) documents.add(document);
      for (const [index, recipient] of grants.recipients.slice(0, SHOWN - shown.length).entries()) {
        const document = grants.documents[index];
        if (document !== undefined) shown.push({ recipient, document, until: grants.until, impact });
      }
    }
    if (seen < AT_ONCE) return { impacts, people, documents, shown };
    at = last;
    await setImmediate();
  }
}

function sooner({ until, ends }: Impact): boolean {
  return !ends && until !== null && until.after !== null && (until.before === null || until.after < until.before);
}

/** What a change would do to everybody, in numbers and names. `judge` says what it does to grants that are alike. */
export async function impactOf(deps: Pick<Deps, 'db'>, now: number, asked: AskedOf, judge: (grants: AlikeGrants) => Impact | null): Promise<ImpactFound> {
  const { impacts, people, documents, shown } = await affectedBy(deps, now, asked, judge);
  const count = (test: (impact: Impact) => boolean): number => impacts.reduce((sum, { impact, grants }) => (test(impact) ? sum + grants : sum), 0);
  const [many, named, titled] = await Promise.all([whatStandsForMany(deps.db.read), recipientsByIds(deps.db.read, [...new Set(shown.map(({ recipient }) => recipient))]), findDocuments(deps.db.read, [...new Set(shown.map(({ document }) => document))])]);
  const touched = many.filter(({ id }) => people.has(id));
  return {
    grants: count(() => true), people: people.size - touched.length, unknown: touched.some(({ kind }) => kind !== 'group'), documents: documents.size,
    rights: RIGHTS.map((right) => ({ right, lost: count(({ lost }) => lost.includes(right)), gained: count(({ gained }) => gained.includes(right)) })).filter(({ lost, gained }) => lost + gained > 0),
    endNow: count(({ ends }) => ends), endSooner: count(sooner), endLater: count((impact) => impact.until !== null && !impact.ends && !impact.revives && !sooner(impact)), revive: count(({ revives }) => revives), other: count(({ other }) => other),
    rows: shown.map(({ recipient, document, until, impact }) => {
      const person = named.find(({ id }) => id === recipient);
      return {
        recipient, person: person?.kind === 'person', name: person === undefined ? '' : person.name === '' ? person.address : person.name, organisation: person?.organisation ?? '', document, title: titled.find(({ id }) => id === document)?.title ?? '',
        lost: impact.lost, gained: impact.gained, before: impact.until === null ? until : impact.until.before, after: impact.until === null ? until : impact.until.after, endMoves: impact.until !== null, ends: impact.ends,
      };
    }),
  };
}

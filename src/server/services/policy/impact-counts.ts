import 'server-only';
import type { DocumentId, RecipientId } from '@/core/base/ids';
import type { Impact } from '@/core/policy/impact';
import { RIGHTS } from '@/core/policy/rights';
import type { ImpactFound, Touched } from '@/contracts/impact';
import type { Reading } from '@/server/db/database';
import type { AllReadOn, ReadOn } from '@/server/repositories/access/after-repository';
import type { Pair } from '@/server/repositories/access/impact-repository';
import { findDocuments } from '@/server/repositories/documents/document-repository';
import { recipientsByIds } from '@/server/repositories/people/people-repository';

/** Names shown; the numbers count them all. */
const SHOWN = 100;

/** People, each counted once, and whether there are more whom nobody can count. */
class Tally {
  readonly people = new Set<RecipientId>();
  unknown = false;

  add(recipient: RecipientId, standsForMany: boolean): void {
    if (standsForMany) this.unknown = true;
    else this.people.add(recipient);
  }

  get touched(): Touched {
    return { people: this.people.size, unknown: this.unknown };
  }

  get isEmpty(): boolean {
    return this.people.size === 0 && !this.unknown;
  }
}

function endsSooner({ until, ends }: Impact): boolean {
  return !ends && until?.after != null && (until.before === null || until.after < until.before);
}

function endsLater(impact: Impact): boolean {
  return impact.until !== null && !impact.ends && !impact.revives && !endsSooner(impact);
}

/** What counts somebody as touched in some way. */
const COUNTS = {
  endNow: ({ ends }) => ends,
  endSooner: endsSooner,
  endLater: endsLater,
  revive: ({ revives }) => revives,
  other: ({ other }) => other,
} as const satisfies Record<string, (impact: Impact) => boolean>;
type Count = keyof typeof COUNTS;
const NAMES = Object.keys(COUNTS) as Count[];

type Shown = {
  readonly pair: Pair;
  readonly impact: Impact;
  readonly until: number | null;
  readonly readsOn: number | null;
};
type Recipient = Awaited<ReturnType<typeof recipientsByIds>>[number];

function rowOf(
  { pair: { recipient, document }, until, impact, readsOn }: Shown,
  person: Recipient | undefined,
  title: string,
): ImpactFound['rows'][number] {
  return {
    recipient,
    person: person?.kind === 'person',
    name: nameOf(person),
    organisation: person?.organisation ?? '',
    document,
    title,
    lost: impact.lost,
    gained: impact.gained,
    before: impact.until === null ? until : impact.until.before,
    after: impact.until === null ? until : impact.until.after,
    endMoves: impact.until !== null,
    ends: impact.ends,
    readsOn,
  };
}

function nameOf(person: Recipient | undefined): string {
  if (person === undefined) return '';
  return person.name === '' ? person.address : person.name;
}

/** Everybody whom a change touches, in numbers and, the first of them, by name. */
export class ImpactCounts {
  readonly #all = new Tally();
  readonly #by = Object.fromEntries(NAMES.map((name) => [name, new Tally()])) as Record<
    Count,
    Tally
  >;
  readonly #rights = RIGHTS.map((right) => ({
    right,
    lost: new Tally(),
    gained: new Tally(),
  }));
  readonly #documents = new Set<DocumentId>();
  readonly #readsOn = new Map<RecipientId, number>();
  readonly #shown: Shown[] = [];
  #pairs = 0;

  /**
   * @param standsForMany whether an addressee is a domain or an open link
   * @param running what is read on now without asking
   */
  constructor(
    readonly standsForMany: (recipient: RecipientId) => boolean,
    readonly running: AllReadOn,
  ) {}

  /** Adds up people to whom the change does the same. */
  count(impact: Impact, touched: Iterable<RecipientId>, on: Iterable<DocumentId>): void {
    const tallies = [
      this.#all,
      ...NAMES.filter((name) => COUNTS[name](impact)).map((name) => this.#by[name]),
      ...this.#rights.filter(({ right }) => impact.lost.includes(right)).map(({ lost }) => lost),
      ...this.#rights
        .filter(({ right }) => impact.gained.includes(right))
        .map(({ gained }) => gained),
    ];
    for (const recipient of touched) {
      const isMany = this.standsForMany(recipient);
      for (const tally of tallies) tally.add(recipient, isMany);
    }
    for (const document of on) this.#documents.add(document);
  }

  /** @param until when their access ends as it is; null: never, or it is told with the change */
  show(impact: Impact, touched: readonly Pair[], until: number | null): void {
    this.#pairs += touched.length;
    if (this.running.size > 0) for (const pair of touched) this.#noteReadsOn(pair, impact);
    for (const pair of touched.slice(0, SHOWN - this.#shown.length)) {
      const readsOn = this.#beyond(pair, impact).map((each) => each.until);
      this.#shown.push({
        pair,
        impact,
        until,
        readsOn: readsOn.length === 0 ? null : Math.max(...readsOn),
      });
    }
  }

  /** Who reads something on without asking beyond the end that it would have. */
  #beyond({ recipient, document }: Pair, impact: Impact): readonly ReadOn[] {
    const end = impact.ends ? 0 : endsSooner(impact) ? impact.until?.after : null;
    if (end == null) return [];
    return (this.running.get(`${recipient} ${document}`) ?? []).filter(({ until }) => until > end);
  }

  #noteReadsOn(pair: Pair, impact: Impact): void {
    for (const { recipient, until } of this.#beyond(pair, impact))
      this.#readsOn.set(recipient, Math.max(until, this.#readsOn.get(recipient) ?? 0));
  }

  async found(db: Reading): Promise<ImpactFound> {
    const [named, titled] = await Promise.all([
      recipientsByIds(db, [...new Set(this.#shown.map(({ pair }) => pair.recipient))]),
      findDocuments(db, [...new Set(this.#shown.map(({ pair }) => pair.document))]),
    ]);
    return {
      pairs: this.#pairs,
      ...this.#all.touched,
      documents: this.#documents.size,
      rights: this.#rights
        .filter(({ lost, gained }) => !lost.isEmpty || !gained.isEmpty)
        .map(({ right, lost, gained }) => ({ right, lost: lost.touched, gained: gained.touched })),
      endNow: this.#by.endNow.touched,
      readsOn:
        this.#readsOn.size === 0
          ? null
          : { people: this.#readsOn.size, until: Math.max(...this.#readsOn.values()) },
      endSooner: this.#by.endSooner.touched,
      endLater: this.#by.endLater.touched,
      revive: this.#by.revive.touched,
      other: this.#by.other.touched,
      rows: this.#shown.map((shown) =>
        rowOf(
          shown,
          named.find(({ id }) => id === shown.pair.recipient),
          titled.find(({ id }) => id === shown.pair.document)?.title ?? '',
        ),
      ),
    };
  }
}

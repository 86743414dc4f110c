import { AbilityBuilder, createMongoAbility, subject, type MongoAbility } from '@casl/ability';
import type { DocumentId, RecipientId, StaffId } from '@/core/base/ids';
import { DAY } from '@/core/base/time';
import { NO_LIMITS, type Ceiling } from '@/core/policy/ceiling';
import {
  compileDocument,
  type Addressee,
  type CompiledDocument,
  type GrantFacts,
} from '@/core/policy/compile';
import { UNUSED } from '@/core/policy/conditions';
import { decide, type Asking } from '@/core/policy/decide';
import { RIGHTS, type Right } from '@/core/policy/rights';
import { numbers } from '../tests/support/random-policy';
import { median, say } from './measure';

const DOCUMENTS = 10_000;
const RECIPIENTS = 2_000;
const GROUPS = 100;
const GRANTS = 20;
const ASKED = 300_000;
const NOW = 1_800_000_000_000;
const STAFF: StaffId = 'stf_00000000000000000001';
const COUNTRIES = ['NO', 'GB', 'DE', 'FR', 'NL'];

type Person = { readonly id: RecipientId; readonly group: string };
type Question = { readonly document: number; readonly person: Person; readonly country: string };

function workload() {
  const next = numbers(412);
  const int = (below: number): number => Math.floor(next() * below);
  const people = Array.from({ length: RECIPIENTS }, (_, i): Person => ({
    id: `rcp_${String(i)}`,
    group: `grp_${String(i % GROUPS)}`,
  }));
  const grants = Array.from({ length: DOCUMENTS }, (_, document) =>
    Array.from({ length: GRANTS }, (__, i): GrantFacts => ({
      id: `grt_${String(document)}_${String(i)}`,
      addressee:
        i % 2 === 0
          ? { kind: 'group', id: `grp_${String(int(GROUPS))}` }
          : { kind: 'person', id: `rcp_${String(int(RECIPIENTS))}` },
      revoked: next() < 0.05,
      used: UNUSED,
      givenBy: STAFF,
      givenAt: NOW - int(60) * DAY,
      terms: {
        rights: RIGHTS.filter((right) => right === 'read' || next() < 0.4),
        from: NOW - 90 * DAY,
        until: NOW + (int(40) - 10) * DAY,
        prints: null,
        ...(next() < 0.5
          ? { conditions: { countries: COUNTRIES.filter(() => next() < 0.6) } }
          : {}),
      },
    })),
  );
  // Half of the questions come from people in a group that was given the document: else nearly all
  // would be refused at once.
  const questions = Array.from({ length: ASKED }, (): Question => {
    const document = int(DOCUMENTS);
    const group = grants[document]?.find(({ addressee }) => addressee.kind === 'group')?.addressee
      .id;
    const person =
      next() < 0.5 && group !== undefined
        ? people[int(RECIPIENTS / GROUPS) * GROUPS + Number(group.slice(4))]
        : people[int(RECIPIENTS)];
    return {
      document,
      person: person ?? { id: 'rcp_0', group: 'grp_0' },
      country: COUNTRIES[int(COUNTRIES.length)] ?? 'NO',
    };
  });
  return { grants, questions };
}

const addresseeKey = ({ kind, id }: Addressee): string => `${kind}:${id}`;

type Rate = { readonly rate: number; readonly granted: number };

/**
 * Decisions in a second, the middle of several rounds, in which all take turns: what slows the
 * machine slows them alike. Each also counts what it granted, so that the work is not thought away.
 */
function rates(
  deciders: readonly ((question: Question) => boolean)[],
  questions: readonly Question[],
): Rate[] {
  const found = deciders.map(() => ({ rates: [] as number[], granted: 0 }));
  for (let round = 0; round < 7; round++) {
    for (const [index, decideOne] of deciders.entries()) {
      const start = performance.now();
      const granted = questions.reduce((sum, question) => sum + (decideOne(question) ? 1 : 0), 0);
      found[index]?.rates.push(questions.length / ((performance.now() - start) / 1000));
      if (found[index] !== undefined) found[index].granted = granted;
    }
  }
  return found.map((each) => ({ rate: median(each.rates), granted: each.granted }));
}

type Plain = {
  readonly rights: ReadonlySet<Right>;
  readonly from: number;
  readonly until: number;
  readonly countries: ReadonlySet<string> | null;
  readonly revoked: boolean;
};

/** Nothing but lookups and compares, with a reason for each refusal: what deciding cannot be quicker than. */
function bareLookup(grants: readonly (readonly GrantFacts[])[]): (question: Question) => boolean {
  const documents = new Map(
    grants.map((list, document) => {
      const byAddressee = new Map<string, Plain[]>();
      for (const { addressee, terms, revoked } of list) {
        const key = addresseeKey(addressee);
        byAddressee.set(key, [
          ...(byAddressee.get(key) ?? []),
          {
            rights: new Set(terms.rights),
            from: terms.from ?? 0,
            until: terms.until ?? Infinity,
            countries:
              terms.conditions?.countries == null ? null : new Set(terms.conditions.countries),
            revoked,
          },
        ]);
      }
      return [`doc_${String(document)}`, byAddressee];
    }),
  );
  return ({ document, person, country }) => {
    const found = documents.get(`doc_${String(document)}`);
    const reasons: string[] = [];
    const rights = new Set<Right>();
    for (const key of [`person:${person.id}`, `group:${person.group}`]) {
      for (const grant of found?.get(key) ?? []) {
        if (grant.revoked) reasons.push('revoked');
        else if (NOW < grant.from) reasons.push('not-yet');
        else if (NOW >= grant.until) reasons.push('expired');
        else if (grant.countries !== null && !grant.countries.has(country))
          reasons.push('place-not-allowed');
        else for (const right of grant.rights) rights.add(right);
      }
    }
    return rights.has('read');
  };
}

function ours(grants: readonly (readonly GrantFacts[])[]): (question: Question) => boolean {
  const documents = new Map<string, CompiledDocument>(
    grants.map((list, document) => {
      const id: DocumentId = `doc_${String(document)}`;
      return [
        id,
        compileDocument({ id, revoked: false, keyDestroyed: false, ceilings: [], grants: list }),
      ];
    }),
  );
  return ({ document, person, country }) => {
    const compiled = documents.get(`doc_${String(document)}`);
    const asking: Asking = {
      identity: 'proven',
      recipient: { id: person.id, blocked: false, groups: [person.group] },
      at: { now: NOW, country, network: null, zone: 'UTC', device: null },
    };
    return compiled !== undefined && decide(compiled, asking).outcome === 'granted';
  };
}

/** A general authorisation library, its rules made once for each document; it gives no reasons. */
function library(
  grants: readonly (readonly GrantFacts[])[],
  asked: readonly Right[],
): (question: Question) => boolean {
  const documents = new Map<string, MongoAbility>();
  const abilityOf = (document: number): MongoAbility => {
    const known = documents.get(`doc_${String(document)}`);
    if (known !== undefined) return known;
    const { can, build } = new AbilityBuilder(createMongoAbility);
    for (const { addressee, terms, revoked } of grants[document] ?? []) {
      if (!revoked)
        for (const right of terms.rights)
          can(right, 'Asking', {
            who: addresseeKey(addressee),
            at: { $gte: terms.from, $lt: terms.until },
            ...(terms.conditions?.countries == null
              ? {}
              : { country: { $in: [...terms.conditions.countries] } }),
          });
    }
    const ability = build();
    documents.set(`doc_${String(document)}`, ability);
    return ability;
  };
  return ({ document, person, country }) => {
    const asking = subject('Asking', {
      who: [`person:${person.id}`, `group:${person.group}`],
      at: NOW,
      country,
    });
    const ability = abilityOf(document);
    const may = asked.filter((right) => ability.can(right, asking));
    return may.includes('read');
  };
}

/** Deciding, against a bare lookup and a general library on the same rules. */
export function deciding(): Promise<void> {
  const { grants, questions } = workload();
  const [bare, own] = rates([bareLookup(grants), ours(grants)], questions);
  // The library is slower: fewer questions, about few enough documents that its rules are made before they are timed.
  const few = questions.filter(({ document }) => document < DOCUMENTS / 20);
  const [one, all, same] = rates(
    [library(grants, ['read']), library(grants, RIGHTS), ours(grants)],
    few,
  );
  if (
    bare === undefined ||
    own === undefined ||
    one === undefined ||
    all === undefined ||
    same === undefined
  )
    throw new Error('nothing was measured');
  if (bare.granted !== own.granted || one.granted !== same.granted || all.granted !== same.granted)
    throw new Error('they decide differently');
  say(
    'decide, seven rights with reasons',
    `${own.rate.toFixed(0)}/s = ${(own.rate / bare.rate).toFixed(2)} x a bare lookup (${bare.rate.toFixed(0)}/s)`,
    '0.50',
  );
  say(
    '… against a general library, the same rights',
    `${(same.rate / all.rate).toFixed(1)} x (${all.rate.toFixed(0)}/s)`,
    '5',
  );
  say(
    '… where the library is asked for one right only',
    `${(same.rate / one.rate).toFixed(1)} x (${one.rate.toFixed(0)}/s)`,
    '-',
  );
  byNetworks();
  return Promise.resolve();
}

/** Whole requests, from rows to the decision: what decides is compiled anew for each, as the server does. */
function byNetworks(): void {
  const grant: GrantFacts = {
    id: 'grt_0',
    addressee: { kind: 'person', id: 'rcp_0' },
    revoked: false,
    used: UNUSED,
    givenBy: STAFF,
    givenAt: NOW - DAY,
    terms: { rights: ['read', 'print'], from: null, until: NOW + DAY, prints: null },
  };
  const levels = ['organisation', 'marking', 'folder', 'document'] as const;
  const ceilings = (networks: readonly string[] | null) =>
    levels.map((level, i): Ceiling => ({
      level,
      subject: String(i),
      setBy: STAFF,
      setAt: i,
      limits: {
        ...NO_LIMITS,
        ...(networks === null ? { prints: 9 } : { networks: [...networks] }),
      },
    }));
  const asking = (): Asking => ({
    identity: 'proven',
    recipient: { id: 'rcp_0', blocked: false },
    at: { now: NOW, country: 'NO', network: '203.0.113.9', zone: 'UTC', device: null },
  });
  const whole = (networks: readonly string[] | null) => () =>
    decide(
      compileDocument({
        id: 'doc_0',
        revoked: false,
        keyDestroyed: false,
        ceilings: ceilings(networks),
        grants: [grant],
      }),
      asking(),
    ).outcome === 'granted';
  const nothing = Array.from({ length: 50_000 }, (): Question => ({
    document: 0,
    person: { id: 'rcp_0', group: '' },
    country: 'NO',
  }));
  const [without, within] = rates(
    [whole(null), whole(['203.0.113.0/24', '2001:db8::/32'])],
    nothing,
  );
  if (without === undefined || within?.granted !== nothing.length)
    throw new Error('it was not granted');
  say(
    'a request under four ceilings of two networks',
    `${within.rate.toFixed(0)}/s; without networks ${without.rate.toFixed(0)}/s`,
    '20000',
  );
}

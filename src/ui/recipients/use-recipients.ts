'use client';

import { useEffect, useMemo, useState } from 'react';
import type { DomainCheck, RecipientCheck } from '@/contracts/dispatch';
import type { GroupId } from '@/core/base/ids';
import type { DraftBody, OwnDraft } from '@/core/policy/draft';
import { parseAddresses } from '@/core/policy/address';
import type { TermsDraft } from '@/ui/terms-fields/switch-right';
import { api } from '@/ui/http/api';

export type RecipientDraft = {
  readonly address: string;
  readonly name: string;
  readonly organisation: string;
  readonly terms: TermsDraft | null;
  readonly check: RecipientCheck | null;
};
/** Everyone at a domain, `@yard.example`, with what is known of it. */
export type DomainDraft = { readonly domain: string; readonly check: DomainCheck | null };
type Own = Omit<OwnDraft, 'address'>;

const WAIT = 400;

export type Recipients = {
  readonly text: string;
  readonly setText: (text: string) => void;
  readonly people: readonly RecipientDraft[];
  readonly domains: readonly DomainDraft[];
  /** Groups that are addressed as such: anyone who joins has it as well. */
  readonly groups: readonly GroupId[];
  readonly setGroups: (groups: readonly GroupId[]) => void;
  readonly unreadable: readonly string[];
  /** What was set for single addresses, as a draft keeps it. */
  readonly own: readonly OwnDraft[];
  readonly change: (address: string, own: Own) => void;
  readonly remove: (address: string) => void;
};

/** What was set for an address goes before what is known of it, and that before what was typed. */
function recipientOf(
  { address, name }: { readonly address: string; readonly name: string },
  set: Own | undefined,
  check: RecipientCheck | null,
): RecipientDraft {
  const known = check?.known;
  return {
    address,
    name: set?.name ?? known?.name ?? name,
    organisation: set?.organisation ?? known?.organisation ?? '',
    terms: set?.terms ?? null,
    check,
  };
}

/** Recipients out of typed or pasted text, with what is known about each and what was set for each alone. */
export function useRecipients(begun?: Pick<DraftBody, 'people' | 'own' | 'groups'>): Recipients {
  const [text, setText] = useState(begun?.people ?? '');
  const [own, setOwn] = useState<ReadonlyMap<string, Own>>(
    new Map(begun?.own.map((each) => [each.address, each])),
  );
  const [checks, setChecks] = useState<ReadonlyMap<string, RecipientCheck>>(new Map());
  const [groups, setGroups] = useState<readonly GroupId[]>(begun?.groups ?? []);
  const [domainChecks, setDomainChecks] = useState<ReadonlyMap<string, DomainCheck>>(new Map());
  const { addresses, domains, unreadable } = useMemo(() => parseAddresses(text), [text]);
  const unchecked = [
    ...addresses.map(({ address }) => address).filter((address) => !checks.has(address)),
    ...domains.filter((domain) => !domainChecks.has(domain)),
  ].join('\n');

  useEffect(() => {
    if (unchecked === '') return undefined;
    const timer = setTimeout(() => {
      const asked = unchecked.split('\n');
      api('POST /api/v1/recipients/check', {
        addresses: asked.filter((each) => !each.startsWith('@')),
        domains: asked.filter((each) => each.startsWith('@')),
      }).then(
        (found) => {
          setChecks(
            (before) =>
              new Map([
                ...before,
                ...found.checks.map((check): [string, RecipientCheck] => [check.address, check]),
              ]),
          );
          setDomainChecks(
            (before) =>
              new Map([
                ...before,
                ...found.domains.map((check): [string, DomainCheck] => [check.domain, check]),
              ]),
          );
        },
        () => undefined, // What is not known is checked again when the dispatch is sent.
      );
    }, WAIT);
    return () => {
      clearTimeout(timer);
    };
  }, [unchecked]);

  const people = addresses.map((each) =>
    recipientOf(each, own.get(each.address), checks.get(each.address) ?? null),
  );
  return {
    text,
    setText,
    people,
    unreadable,
    groups,
    setGroups,
    domains: domains.map((domain) => ({ domain, check: domainChecks.get(domain) ?? null })),
    own: Array.from(own, ([address, set]) => ({ ...set, address })),
    change: (address, change) => {
      setOwn((before) => new Map(before).set(address, { ...before.get(address), ...change }));
    },
    remove: (address) => {
      setText(
        [
          ...addresses
            .filter((each) => each.address !== address)
            .map((each) => (each.name === '' ? each.address : `${each.name} <${each.address}>`)),
          ...domains.filter((domain) => domain !== address),
        ].join('\n'),
      );
    },
  };
}

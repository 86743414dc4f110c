'use client';

import { useEffect, useMemo, useState } from 'react';
import type { DomainCheck, RecipientCheck } from '@/contracts/recipients';
import type { RowFacts } from '@/core/compose/concerns';
import type { Row } from '@/core/compose/sheet';
import { api } from '@/ui/http/api';

const WAIT = 250;
/** How long after a failed question it is asked again. */
const AGAIN = 3_000;
/** Most that are asked about at once. */
const MOST = 1_000;

/** What is known about whom a row stands for. */
export type Known = RowFacts & {
  readonly name: string;
  readonly organisation: string;
  readonly inside: boolean;
  readonly lastSentAt: number | null;
  readonly readingAids: boolean;
  /** Of a domain: people there who are known here. */
  readonly people: number;
};

function aboutPerson({ known, looksLike, publicMail, inside }: RecipientCheck): Known {
  return {
    known: known !== null,
    blocked: known?.blocked ?? false,
    looksLike,
    publicMail,
    name: known?.name ?? '',
    organisation: known?.organisation ?? '',
    inside,
    lastSentAt: known?.lastSentAt ?? null,
    readingAids: known?.readingAids ?? false,
    people: 0,
  };
}

function aboutDomain({ organisation, known, publicMail, inside }: DomainCheck): Known {
  return {
    known: known > 0,
    blocked: false,
    looksLike: null,
    publicMail,
    name: '',
    organisation,
    inside,
    lastSentAt: null,
    readingAids: false,
    people: known,
  };
}

async function ask(keys: readonly string[]): Promise<(readonly [string, Known])[]> {
  const { checks, domains } = await api('POST /api/v1/recipients/check', {
    addresses: keys.filter((key) => !key.startsWith('@')),
    domains: keys.filter((key) => key.startsWith('@')),
  });
  return [
    ...checks.map((check) => [check.address, aboutPerson(check)] as const),
    ...domains.map((check) => [check.domain, aboutDomain(check)] as const),
  ];
}

/** What is known about each row, asked for as rows come; groups and links need no asking. */
export function useFacts(rows: readonly Row[]): (key: string) => Known | undefined {
  const [tries, setTries] = useState(0);
  const [facts, setFacts] = useState<ReadonlyMap<string, Known>>(new Map());
  const wanted = rows
    .filter(({ kind, key }) => (kind === 'person' || kind === 'domain') && !facts.has(key))
    .slice(0, MOST)
    .map(({ key }) => key)
    .join('\n');
  useEffect(() => {
    if (wanted === '') return undefined;
    const timer = setTimeout(
      () => {
        ask(wanted.split('\n')).then(
          (found) => {
            setFacts((before) => new Map([...before, ...found]));
          },
          () => {
            setTries((before) => before + 1);
          },
        );
      },
      tries === 0 ? WAIT : AGAIN,
    );
    return () => {
      clearTimeout(timer);
    };
  }, [wanted, tries]);
  return useMemo(() => (key: string) => facts.get(key), [facts]);
}

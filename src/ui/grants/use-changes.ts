'use client';

import { counted } from '@/core/base/counted';
import { useState } from 'react';
import type { Changeable, GrantRow } from '@/contracts/dispatch';
import { changedRights, type RightsChange } from '@/core/policy/changed-rights';
import { stillReadsText } from '@/ui/grants/revoke-words';
import { api } from '@/ui/http/api';
import { useAttempt } from '@/ui/http/use-attempt';

type Said = {
  readonly text: string;
  readonly stops: boolean;
  readonly undo: (() => Promise<void>) | null;
};

/** Changes of grants from a screen: each says what it did, and how to take it back. */
export type Changes = {
  readonly busy: boolean;
  readonly said: Said | null;
  /** Takes what was said away. */
  readonly hush: () => void;
  /** `also`: further ones, by which the same people would still come in. */
  readonly revoke: (
    grants: readonly GrantRow[],
    also: readonly GrantRow['id'][],
    reason: string,
  ) => Promise<void>;
  readonly reinstate: (grants: readonly GrantRow[]) => Promise<void>;
  /** Carries out a revocation that answers with the grants it revoked. */
  readonly revokeWhole: (
    work: () => Promise<{ readonly grants: readonly GrantRow['id'][] }>,
  ) => Promise<void>;
  readonly moveEnds: (grants: readonly GrantRow[], until: number | null) => Promise<void>;
  readonly setConditions: (
    grants: readonly GrantRow[],
    conditions: Changeable['conditions'],
  ) => Promise<void>;
  /** Changes what they may do, alike or each beside what they have; ends stay. */
  readonly changeRights: (grants: readonly GrantRow[], change: RightsChange) => Promise<void>;
};

type GrantChange = {
  readonly grant: GrantRow['id'];
  readonly revision: number;
} & Partial<Changeable>;
type Done = { readonly text: string; readonly undo: (() => Promise<void>) | null };

/** Asked once it is done: nobody is said to be shut out who still reads. */
async function whoStillReads(grants: readonly GrantRow['id'][]): Promise<string> {
  try {
    const { stillReads } = await api('POST /api/v1/grants/revoke/preview', { grants });
    return stillReadsText(stillReads);
  } catch {
    // It is revoked all the same, and can be undone.
    return ' Who still reads by another way could not be found out.';
  }
}

export function useChanges(): Changes {
  const { busy, problem, hush, attempt } = useAttempt();
  const [done, setDone] = useState<Done | null>(null);

  const act = async (work: () => Promise<Done>): Promise<void> => {
    setDone(null);
    await attempt(async () => {
      setDone(await work());
    });
  };
  const revoke = (grants: readonly GrantRow['id'][], reason: string): Promise<void> =>
    act(async () => {
      const { changed } = await api('POST /api/v1/grants/revoke', { grants, reason });
      return {
        text: `Revoked ${counted(changed, 'grant')}.${await whoStillReads(grants)}`,
        undo: changed === 0 ? null : () => reinstate(grants),
      };
    });
  const reinstate = (grants: readonly GrantRow['id'][]): Promise<void> =>
    act(async () => {
      const { changed } = await api('POST /api/v1/grants/reinstate', { grants, reason: '' });
      return {
        text: `Reinstated ${counted(changed, 'grant')}.`,
        undo: changed === 0 ? null : () => revoke(grants, ''),
      };
    });
  const send = (what: string, changes: readonly GrantChange[]): Promise<void> =>
    act(async () => {
      const { changed } = await api('POST /api/v1/grants/change', { changes });
      return {
        text: `Changed ${counted(changed.length, what)}.`,
        undo: () =>
          send(
            what,
            changed.map(({ grant, revision, before }) => ({ grant, revision, ...before })),
          ),
      };
    });
  const toAll = (what: string, grants: readonly GrantRow[], change: Partial<Changeable>) =>
    send(
      what,
      grants.map(({ id, revision }) => ({ grant: id, revision, ...change })),
    );
  return {
    busy,
    said:
      problem === null
        ? done && { ...done, stops: false }
        : { text: problem, stops: true, undo: null },
    hush: () => {
      setDone(null);
      hush();
    },
    revoke: (grants, also, reason) => revoke([...grants.map((grant) => grant.id), ...also], reason),
    reinstate: (grants) => reinstate(grants.map((grant) => grant.id)),
    revokeWhole: (work) =>
      act(async () => {
        const { grants } = await work();
        const still = grants.length === 0 ? '' : await whoStillReads(grants);
        return {
          text: `Revoked ${counted(grants.length, 'grant')}.${still}`,
          undo: grants.length === 0 ? null : () => reinstate(grants),
        };
      }),
    setConditions: (grants, conditions) => toAll('grant', grants, { conditions }),
    moveEnds: (grants, until) => toAll('end', grants, { until }),
    changeRights: (grants, change) =>
      send(
        'grant',
        grants.map((grant) => ({
          grant: grant.id,
          revision: grant.revision,
          ...changedRights(grant, change),
        })),
      ),
  };
}

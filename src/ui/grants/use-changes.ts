'use client';

import { counted } from '@/core/base/counted';
import { useState } from 'react';
import { useRouter } from 'next/navigation';
import type { Changeable, ChangeGrantsResult, GrantRow } from '@/contracts/dispatch';
import type { RevokeEffect } from '@/contracts/access';
import { stillReadsText } from '@/ui/grants/revoke-words';
import { call, sentenceOf } from '@/ui/http/call';

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
  /** Carries out a cut that answers with the grants it revoked. */
  readonly revokeWhole: (
    cut: () => Promise<{ readonly grants: readonly GrantRow['id'][] }>,
  ) => Promise<void>;
  readonly moveEnds: (grants: readonly GrantRow[], until: number | null) => Promise<void>;
  readonly setConditions: (
    grants: readonly GrantRow[],
    conditions: Changeable['conditions'],
  ) => Promise<void>;
  /** Gives all of them the same rights; ends stay. */
  readonly setRights: (
    grants: readonly GrantRow[],
    rights: Pick<Changeable, 'rights' | 'prints'>,
  ) => Promise<void>;
};

/** Asked once it is done: nobody is said to be shut out who still reads. */
async function whoStillReads(grants: readonly GrantRow['id'][]): Promise<string> {
  try {
    const { stillReads } = await call<RevokeEffect>('POST', '/api/v1/grants/revoke/preview', {
      grants,
    });
    return stillReadsText(stillReads);
  } catch {
    // It is revoked all the same, and can be undone.
    return ' Who still reads by another way could not be found out.';
  }
}

export function useChanges(): Changes {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [said, setSaid] = useState<Said | null>(null);

  const attempt = async (work: () => Promise<Said>) => {
    setBusy(true);
    try {
      setSaid(await work());
    } catch (error) {
      setSaid({ text: sentenceOf(error), stops: true, undo: null });
    } finally {
      router.refresh();
      setBusy(false);
    }
  };
  const cut = (
    verb: 'revoke' | 'reinstate',
    grants: readonly GrantRow['id'][],
    reason = '',
  ): Promise<void> =>
    attempt(async () => {
      const { changed } = await call<{ readonly changed: number }>(
        'POST',
        `/api/v1/grants/${verb}`,
        { grants, reason },
      );
      const [word, other] =
        verb === 'revoke'
          ? (['Revoked', 'reinstate'] as const)
          : (['Reinstated', 'revoke'] as const);
      const still = verb === 'revoke' ? await whoStillReads(grants) : '';
      return {
        text: `${word} ${counted(changed, 'grant')}.${still}`,
        stops: false,
        undo: changed === 0 ? null : () => cut(other, grants),
      };
    });
  const send = (
    said: string,
    changes: readonly ({
      readonly grant: GrantRow['id'];
      readonly revision: number;
    } & Partial<Changeable>)[],
  ): Promise<void> =>
    attempt(async () => {
      const { changed } = await call<ChangeGrantsResult>('POST', '/api/v1/grants/change', {
        changes,
      });
      return {
        text: `Changed ${counted(changed.length, said)}.`,
        stops: false,
        undo: () =>
          send(
            said,
            changed.map(({ grant, revision, before }) => ({ grant, revision, ...before })),
          ),
      };
    });
  return {
    busy,
    said,
    hush: () => {
      setSaid(null);
    },
    revoke: (grants, also, reason) =>
      cut('revoke', [...grants.map((grant) => grant.id), ...also], reason),
    reinstate: (grants) =>
      cut(
        'reinstate',
        grants.map((grant) => grant.id),
      ),
    revokeWhole: (work) =>
      attempt(async () => {
        const { grants } = await work();
        const still = grants.length === 0 ? '' : await whoStillReads(grants);
        return {
          text: `Revoked ${counted(grants.length, 'grant')}.${still}`,
          stops: false,
          undo: grants.length === 0 ? null : () => cut('reinstate', grants),
        };
      }),
    setConditions: (grants, conditions) =>
      send(
        'grant',
        grants.map((grant) => ({ grant: grant.id, revision: grant.revision, conditions })),
      ),
    moveEnds: (grants, until) =>
      send(
        'end',
        grants.map((grant) => ({ grant: grant.id, revision: grant.revision, until })),
      ),
    setRights: (grants, rights) =>
      send(
        'grant',
        grants.map((grant) => ({ grant: grant.id, revision: grant.revision, ...rights })),
      ),
  };
}

'use client';

import type { Watermark } from '@/core/watermark/layers';
import { useState } from 'react';
import { useRouter } from 'next/navigation';
import type { Api } from '@/contracts/api';
import type { DoubtCode } from '@/core/compose/concerns';
import type { HandingOver } from '@/core/compose/draft';
import type { Sheet } from '@/core/compose/sheet';
import { isInTheClear } from '@/core/policy/delivery';
import type { Terms } from '@/core/policy/rights';
import type { useDraft } from '@/ui/compose/use-draft';
import { api } from '@/ui/http/api';
import { sentenceOf } from '@/ui/http/call';
import { addresseesOf } from '@/ui/recipients/addressees';
import type { GridRow } from '@/ui/recipients/grid-view';

type Composed = {
  readonly rows: readonly GridRow[];
  readonly sheet: Sheet;
  readonly common: Terms;
  readonly subject: string;
  readonly note: string;
  readonly watermark: Watermark;
  readonly way: HandingOver;
  readonly waved: readonly DoubtCode[];
  /** When it leaves; `null`: as soon as it may. */
  readonly leavesAt: number | null;
};
type Body = Omit<Api['POST /api/v1/dispatches']['takes'], 'draft'>;

function bodyOf({ rows, sheet, common, way, waved, ...message }: Composed): Body {
  return {
    documents: sheet.documents,
    ...addresseesOf(rows, common),
    terms: common,
    kept: isInTheClear(way.form) ? null : sheet.saved,
    ...message,
    ...way,
    waved: [...new Set(waved)],
  };
}

/** Sends what is composed, and its draft with it. */
export function useSend({ settle, goOn }: ReturnType<typeof useDraft>, composed: Composed) {
  const router = useRouter();
  const [busy, setBusy] = useState(false);
  const [problem, setProblem] = useState<string | null>(null);
  const send = async () => {
    setBusy(true);
    setProblem(null);
    try {
      const { id, held } = await api('POST /api/v1/dispatches', {
        draft: await settle(),
        ...bodyOf(composed),
      });
      // What waits for somebody else stands on Today, and what is held back on Dispatches.
      const after = held === null ? '/today' : '/dispatches';
      router.push(id === null ? after : `/dispatches/${id}`);
    } catch (error) {
      goOn();
      setProblem(sentenceOf(error));
      setBusy(false);
    }
  };
  return { busy, problem, send };
}

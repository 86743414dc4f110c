'use client';

import type { YouPage } from '@/contracts/staff';
import { roleHints } from '@/ui/words/role-words';
import { FactorPart } from '@/ui/you/factor-part';
import { NoticesPart } from '@/ui/you/notices-part';

/** Who is at the screen, and how they sign in. */
export function YouView({ you }: { readonly you: YouPage }) {
  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <div className="row">
            <h1>{you.name}</h1>
            <span className="quiet">
              {you.email} · {you.role}
            </span>
          </div>
        </div>
        <div className="scroll part">
          <div className="stack reading">
            <h2>What you may do</h2>
            <p>{roleHints[you.role]}</p>
            <NoticesPart choices={you.notices} />
            <FactorPart on={you.factor} />
          </div>
        </div>
      </div>
    </main>
  );
}

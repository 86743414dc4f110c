'use client';

import Button from '@mui/material/Button';
import type { CeilingRow } from '@/contracts/ceiling';
import { CEILING_LEVELS } from '@/core/policy/ceiling';
import { Moment } from '@/ui/time/moment';
import { levelWords, limitLines } from '@/ui/words/limit-words';

/** What each level allows at most, from the outermost in. */
export function CeilingsPart({ ceilings, mayChange, selected, onOpen }: { readonly ceilings: readonly CeilingRow[]; readonly mayChange: boolean; readonly selected: CeilingRow | null; readonly onOpen: (row: CeilingRow | 'new') => void }) {
  const rows = [...ceilings].sort((a, b) => CEILING_LEVELS.indexOf(a.level) - CEILING_LEVELS.indexOf(b.level) || a.name.localeCompare(b.name));
  return (
    <section aria-label="Ceilings" style={{ padding: '18px 22px 0' }}>
      <div className="row"><h1 style={{ fontSize: 16 }}>Ceilings</h1><span className="quiet">the most that may be given below; they hold for what was sent before as well</span><span className="gap" />{mayChange && <Button onClick={() => { onOpen('new'); }}>Set a ceiling</Button>}</div>
      {rows.length === 0 ? <p className="quiet" style={{ marginTop: 8 }}>There are none: whoever sends something may give what they like.</p> : (
        <table className="list"><tbody>
          {rows.map((row) => (
            <tr key={`${row.level} ${row.subject}`} aria-selected={selected?.level === row.level && selected.subject === row.subject}>
              <td style={{ paddingLeft: 0, width: 110 }} className="quiet">{levelWords[row.level]}</td>
              <td style={{ width: '24%' }}><button type="button" className="row-button" onClick={() => { onOpen(row); }}>{row.name}</button></td>
              <td>{limitLines(row.limits).join('; ')}</td>
              <td><Moment at={row.setAt} /> <span className="quiet">by {row.setBy}</span></td>
            </tr>
          ))}
        </tbody></table>
      )}
    </section>
  );
}

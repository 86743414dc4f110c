'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import type { BroughtTerms } from '@/contracts/odrl';
import { call } from '@/ui/http/call';
import type { Attempt } from '@/ui/http/use-attempt';

type Brought = { readonly file: string; readonly text: string; readonly rows: readonly BroughtTerms[] };
const stateWords: Record<BroughtTerms['state'], string> = { new: 'new', changed: 'takes the place of the terms of this name', same: 'the same as here', stopped: 'left out' };
const LARGEST = 1_000_000;

/** Kept terms out and in as a W3C ODRL document; what would change is shown before it does. */
export function OdrlPart({ mayChange, attempt, busy }: { readonly mayChange: boolean } & Pick<Attempt, 'attempt' | 'busy'>) {
  const [brought, setBrought] = useState<Brought | null>(null);
  const pick = (file: File | undefined) => file !== undefined && attempt(async () => {
    const text = await file.slice(0, LARGEST + 1).text();
    const { brought: rows } = await call<{ readonly brought: readonly BroughtTerms[] }>('POST', '/api/v1/terms/odrl/preview', { text });
    setBrought({ file: file.name, text, rows });
  });
  const taken = brought?.rows.filter(({ state }) => state === 'new' || state === 'changed').length ?? 0;
  const keep = async () => { if (brought !== null && (await attempt(() => call('POST', '/api/v1/terms/odrl', { text: brought.text }), `${String(taken)} ${taken === 1 ? 'set of terms is' : 'sets of terms are'} kept. What was sent before stays as it was sent.`))) setBrought(null); };
  return (
    <section aria-label="Out and in" style={{ padding: '18px 22px 0' }}>
      <div className="row">
        <h1 style={{ fontSize: 16 }}>Out and in</h1><span className="quiet">as W3C ODRL 2.2, which other programs read</span><span className="gap" />
        <Button component="a" href="/api/v1/terms/odrl" download>Take them out</Button>
        {mayChange && <Button component="label" disabled={busy}>Bring some in<input type="file" hidden accept=".jsonld,.json,application/ld+json" aria-label="ODRL file" onChange={(event) => { void pick(event.target.files?.item(0) ?? undefined); event.target.value = ''; }} /></Button>}
      </div>
      {brought !== null && (
        <div className="stack" style={{ marginTop: 10 }}>
          <p><b>{brought.file}</b>: {taken === 0 ? 'nothing in it would change anything.' : `${String(taken)} of ${String(brought.rows.length)} would be kept.`}</p>
          <table className="list"><tbody>
            {brought.rows.map((row, index) => (
              <tr key={index}>
                <td style={{ paddingLeft: 0, width: '26%' }}><b>{row.name}</b></td>
                <td>{row.words}{row.unknown.map(({ path, what }) => <div key={path + what} className="magenta"><span className="figure">{path}</span> {what}</div>)}</td>
                <td className={row.state === 'stopped' ? 'magenta' : row.state === 'changed' ? 'lamp' : 'quiet'} style={{ width: 190 }}>{stateWords[row.state]}</td>
              </tr>
            ))}
          </tbody></table>
          <div className="row"><Button variant="contained" disabled={busy || taken === 0} onClick={() => void keep()}>Keep {taken}</Button><Button variant="text" onClick={() => { setBrought(null); }}>Leave it</Button></div>
        </div>
      )}
    </section>
  );
}

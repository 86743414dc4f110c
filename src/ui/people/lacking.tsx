'use client';

import { useState } from 'react';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import type { Lacking } from '@/contracts/lacking';
import type { PersonDetail } from '@/contracts/people';
import type { DocumentId } from '@/core/base/ids';
import { termsAt, type KeptTerms } from '@/core/policy/kept-terms';
import { DEFAULT_WATERMARK } from '@/core/watermark/tokens';
import { call } from '@/ui/http/call';
import { useAttempt } from '@/ui/http/use-attempt';
import { Notice } from '@/ui/shell/notice';
import { rightsLine } from '@/ui/words/rights-words';

/** Where nobody chose kept terms: read, for thirty days. */
const CAUTIOUS: KeptTerms & { readonly id: string; readonly name: string } = { id: 'cautious', name: 'To read, for 30 days', rights: ['read'], days: 30, prints: null, watermark: DEFAULT_WATERMARK };

/** What somebody does not hold, to give them several at once. */
export function LackingPanel({ person }: { readonly person: PersonDetail }) {
  const { busy, said, attempt } = useAttempt();
  const [lacking, setLacking] = useState<Lacking | null>(null);
  const [search, setSearch] = useState('');
  const [ticked, setTicked] = useState<ReadonlySet<DocumentId>>(new Set());
  const [chosen, setChosen] = useState(CAUTIOUS.id);
  const look = (q: string) => attempt(async () => { setLacking(await call<Lacking>('GET', `/api/v1/people/${person.id}/lacking?q=${encodeURIComponent(q)}`)); });
  if (lacking === null) return <div className="stack"><div className="row"><Button disabled={busy || person.blocked} onClick={() => void look('')}>What they do not hold…</Button></div><Notice said={said} /></div>;

  const all = lacking.rows.length > 0 && lacking.rows.every(({ id }) => ticked.has(id));
  const tick = (ids: readonly DocumentId[], on: boolean) => { setTicked((before) => { const after = new Set(before); for (const id of ids) { if (on) after.add(id); else after.delete(id); } return after; }); };
  const terms = [CAUTIOUS, ...lacking.terms].find(({ id }) => id === chosen) ?? CAUTIOUS;
  const give = async () => {
    const well = await attempt(() => call('POST', `/api/v1/people/${person.id}/lacking`, { documents: [...ticked], terms: termsAt(terms, lacking.now), watermark: terms.watermark }), `${String(ticked.size)} ${ticked.size === 1 ? 'document' : 'documents'} given. No mail went out: the link stands on the dispatch.`);
    if (!well) return;
    setTicked(new Set());
    setLacking(null);
  };
  return (
    <section className="stack" aria-label="What they do not hold">
      <h2>Does not hold <span className="figure">{lacking.total}</span></h2>
      <form className="row" onSubmit={(event) => { event.preventDefault(); void look(search); }}><TextField label="Search" value={search} onChange={(event) => { setSearch(event.target.value); }} /><Button type="submit" disabled={busy}>Find</Button></form>
      <div style={{ maxHeight: 280, overflow: 'auto' }} tabIndex={0} role="region" aria-label="Documents they do not hold">
        <table className="list"><tbody>
          <tr><td style={{ width: 32 }}><input type="checkbox" className="tick" aria-label="Tick all of these documents" checked={all} onChange={(event) => { tick(lacking.rows.map(({ id }) => id), event.target.checked); }} /></td><td className="quiet">{lacking.total > lacking.rows.length ? `the newest ${String(lacking.rows.length)}` : 'all of them'}</td></tr>
          {lacking.rows.map((row) => (
            <tr key={row.id}>
              <td><input type="checkbox" className="tick" aria-label={`Tick ${row.title}`} checked={ticked.has(row.id)} onChange={(event) => { tick([row.id], event.target.checked); }} /></td>
              <td>{row.title}<br /><span className="quiet" style={{ fontSize: 12 }}><span className="figure">{row.reference}</span>{row.marking !== null && ` · ${row.marking}`}{row.once !== null && <span className="lamp"> · {row.once === 'revoked' ? 'was revoked' : 'has ended'}</span>}</span></td>
            </tr>
          ))}
        </tbody></table>
      </div>
      <TextField select label="On these terms" value={terms.id} onChange={(event) => { setChosen(event.target.value); }} helperText={`${rightsLine(terms.rights, terms.prints)}, ${terms.days === null ? 'no end' : `${String(terms.days)} days`}`}>
        {[CAUTIOUS, ...lacking.terms].map(({ id, name }) => <MenuItem key={id} value={id}>{name}</MenuItem>)}
      </TextField>
      <div className="row"><Button variant="contained" disabled={busy || ticked.size === 0} onClick={() => void give()}>Give {ticked.size}</Button><Button variant="text" onClick={() => { setLacking(null); }}>Leave it</Button></div>
      <Notice said={said} />
    </section>
  );
}

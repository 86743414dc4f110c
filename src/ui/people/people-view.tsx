'use client';

import { useState } from 'react';
import Link from 'next/link';
import type { PersonDetail, PersonRow } from '@/contracts/people';
import { PersonPanel } from '@/ui/people/person-panel';
import { ListHead } from '@/ui/shell/list-head';
import { Moment } from '@/ui/time/moment';

/** Everybody outside who was ever sent something, with what they hold now. */
export function PeopleView({ rows, person, now }: { readonly rows: readonly PersonRow[]; readonly person: PersonDetail | null; readonly now: number }) {
  const [search, setSearch] = useState('');
  const wanted = search.trim().toLowerCase();
  const shown = rows.filter((row) => `${row.name} ${row.address} ${row.organisation}`.toLowerCase().includes(wanted));
  return (
    <main className="work">
      <div className="surface">
        <div className="head">
          <ListHead title="People" all={rows.length} shown={shown.length} words={`${String(rows.length)} in ${String(new Set(rows.map((row) => row.organisation)).size)} organisations`} search={search} onSearch={setSearch} placeholder="name, address, organisation" />
        </div>
        <div className="scroll">
          {rows.length === 0 ? <div className="empty"><h2>Nobody was sent anything yet</h2><p>People appear here with the first dispatch that names them. <Link href="/compose">Compose one</Link></p></div> : (
            <table className="list">
              <thead><tr><th>Name</th><th>Organisation</th><th className="number">Documents</th><th className="number">Can open</th><th className="number">Opens</th><th>Last open</th></tr></thead>
              <tbody>
                {shown.map((row) => (
                  <tr key={row.id} aria-selected={row.id === person?.id}>
                    <td><Link href={`/people?person=${row.id}`} scroll={false}>{row.name === '' ? row.address : row.name}</Link>{row.blocked && <span className="magenta"> blocked</span>}<br /><span className="quiet" style={{ fontSize: 12 }}>{row.address}</span></td>
                    <td>{row.organisation === '' ? <span className="quiet">not known</span> : row.organisation}</td>
                    <td className="number">{row.documents}</td>
                    <td className="number">{row.live === 0 ? <span className="quiet">0</span> : row.live}</td>
                    <td className="number">{row.opens}</td>
                    <td>{row.lastOpen === null ? <span className="quiet">never</span> : <Moment at={row.lastOpen} />}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {rows.length > 0 && shown.length === 0 && <div className="empty"><h2>Nobody matches</h2><p>No name, address or organisation contains “{search}”.</p></div>}
        </div>
      </div>
      <aside className="side" aria-label="The selected person">{person === null ? <p className="quiet">Select somebody to see what they hold, opened and were refused.</p> : <PersonPanel key={person.id} person={person} now={now} />}</aside>
    </main>
  );
}

'use client';

import { useState } from 'react';
import Link from 'next/link';
import Button from '@mui/material/Button';
import type { DocumentRow } from '@/contracts/document';
import { ProtectPanel } from '@/ui/documents/protect-panel';
import { sizeText } from '@/ui/documents/size-words';
import { useHolds } from '@/ui/shell/powers';
import { ListHead } from '@/ui/shell/list-head';
import { Moment } from '@/ui/time/moment';

/** All documents, with the place to protect new ones. */
export function DocumentsView({ rows }: { readonly rows: readonly DocumentRow[] }) {
  const protects = useHolds('protect');
  const [search, setSearch] = useState('');
  const [adding, setAdding] = useState(rows.length === 0);
  const wanted = search.trim().toLowerCase();
  const shown = rows.filter((row) => `${row.title} ${row.reference} ${row.ownerName}`.toLowerCase().includes(wanted));

  return (
    <main className="work wide">
      <div className="surface">
        <div className="head">
          <ListHead title="Documents" all={rows.length} shown={shown.length} words={`${String(rows.length)} in all`} search={search} onSearch={setSearch} placeholder="title, reference, owner">
            {protects && <Button aria-expanded={adding} onClick={() => { setAdding(!adding); }}>{adding ? 'Close' : 'Protect files'}</Button>}
          </ListHead>
          {protects && adding && <div style={{ marginTop: 12 }}><ProtectPanel taken={rows.map((row) => row.reference)} /></div>}
        </div>
        <div className="scroll">
          {rows.length === 0 ? (
            <div className="empty"><h2>No documents yet</h2><p>Drop a PDF above. It is encrypted on its way in, and can then be dispatched to people outside.</p></div>
          ) : (
            <table className="list">
              <thead><tr><th>Title</th><th>Reference</th><th>Owner</th><th className="number">Pages</th><th className="number">Size</th><th className="number">People</th><th className="number">Opens</th><th>Protected</th><th>State</th></tr></thead>
              <tbody>
                {shown.map((row) => (
                  <tr key={row.id}>
                    <td><Link href={`/documents/${row.id}`}>{row.title}</Link></td>
                    <td className="figure">{row.reference}</td>
                    <td>{row.ownerName}</td>
                    <td className="number">{row.pages}</td>
                    <td className="number">{sizeText(row.bytes)}</td>
                    <td className="number">{row.people}</td>
                    <td className="number">{row.opens}</td>
                    <td><Moment at={row.protectedAt} /></td>
                    <td>{row.revoked ? <span className="magenta">revoked</span> : row.people === 0 ? <span className="quiet">not sent yet</span> : 'sent'}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          )}
          {rows.length > 0 && shown.length === 0 && <div className="empty"><h2>Nothing matches</h2><p>No title, reference or owner contains “{search}”.</p></div>}
        </div>
      </div>
    </main>
  );
}

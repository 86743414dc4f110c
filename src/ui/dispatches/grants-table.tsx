'use client';

import { useState } from 'react';
import { useRouter } from 'next/navigation';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import type { GrantRow } from '@/contracts/dispatch';
import type { GrantId } from '@/core/base/ids';
import { call, sentenceOf } from '@/ui/http/call';
import { ConfirmCut } from '@/ui/shell/confirm-cut';
import { Moment } from '@/ui/time/moment';
import { rightsLine } from '@/ui/words/rights-words';
import { personName, stateOf, stateWords } from '@/ui/dispatches/grant-words';

type Props = { readonly grants: readonly GrantRow[]; readonly now: number; readonly showDocument: boolean; readonly selected: GrantId | null; readonly onSelect: (id: GrantId) => void };

/** Grants as a list: who may do what until when, with revoking and reinstating of those ticked. */
export function GrantsTable({ grants, now, showDocument, selected, onSelect }: Props) {
  const router = useRouter();
  const [ticked, setTicked] = useState<ReadonlySet<GrantId>>(new Set());
  const [asking, setAsking] = useState(false);
  const [busy, setBusy] = useState(false);
  const [message, setMessage] = useState<{ readonly text: string; readonly undo: readonly GrantId[] | null } | null>(null);
  const chosen = grants.filter((grant) => ticked.has(grant.id));
  const live = chosen.filter((grant) => grant.revokedAt === null);
  const changeable = grants.filter((grant) => grant.mayChange);
  const revoked = chosen.filter((grant) => grant.revokedAt !== null);

  const act = async (verb: 'revoke' | 'reinstate', ids: readonly GrantId[]) => {
    setBusy(true);
    try {
      const { changed } = await call<{ readonly changed: number }>('POST', `/api/v1/grants/${verb}`, { grants: ids });
      setMessage({ text: `${verb === 'revoke' ? 'Revoked' : 'Reinstated'} ${String(changed)} ${changed === 1 ? 'grant' : 'grants'}.`, undo: verb === 'revoke' ? ids : null });
      setTicked(new Set());
      router.refresh();
    } catch (error) {
      setMessage({ text: sentenceOf(error), undo: null });
    } finally {
      setBusy(false);
      setAsking(false);
    }
  };
  const tick = (id: GrantId, on: boolean) => { setTicked((before) => { const after = new Set(before); if (on) after.add(id); else after.delete(id); return after; }); };

  return (
    <>
      <div className="row" style={{ padding: '8px 22px', minHeight: 46 }}>
        <span className="quiet">{chosen.length === 0 ? 'Tick people to revoke or reinstate them together.' : `${String(chosen.length)} ticked`}</span>
        <span className="gap" />
        {message !== null && <span role="status">{message.text}{message.undo !== null && <Button variant="text" disabled={busy} onClick={() => void act('reinstate', message.undo ?? [])}>Undo</Button>}</span>}
        {revoked.length > 0 && <Button disabled={busy} onClick={() => void act('reinstate', revoked.map((grant) => grant.id))}>Reinstate {revoked.length}</Button>}
        {live.length > 0 && <Button color="error" disabled={busy} onClick={() => { setAsking(true); }}>Revoke {live.length}…</Button>}
      </div>
      <table className="list">
        <thead>
          <tr>
            <th><Checkbox sx={{ p: 0 }} disabled={changeable.length === 0} checked={chosen.length > 0 && chosen.length === changeable.length} indeterminate={chosen.length > 0 && chosen.length < changeable.length} onChange={(_event, on) => { setTicked(new Set(on ? changeable.map((grant) => grant.id) : [])); }} slotProps={{ input: { 'aria-label': 'Tick all' } }} /></th>
            <th>Person</th>{showDocument && <th>Document</th>}<th>May</th><th>Until</th><th>State</th><th className="number">Opens</th><th className="number">Refused</th>
          </tr>
        </thead>
        <tbody>
          {grants.map((grant) => {
            const state = stateOf(grant, now);
            return (
              <tr key={grant.id} aria-selected={grant.id === selected}>
                <td><Checkbox sx={{ p: 0 }} disabled={!grant.mayChange} checked={ticked.has(grant.id)} onChange={(_event, on) => { tick(grant.id, on); }} slotProps={{ input: { 'aria-label': `Tick ${personName(grant)}, ${grant.documentTitle}` } }} /></td>
                <td><button type="button" className="row-button" onClick={() => { onSelect(grant.id); }}>{personName(grant)}</button><br /><span className="quiet" style={{ fontSize: 12 }}>{grant.organisation === '' ? grant.address : grant.organisation}</span></td>
                {showDocument && <td>{grant.documentTitle}</td>}
                <td>{rightsLine(grant.rights, grant.prints)}</td>
                <td>{grant.until === null ? <span className="lamp">no end</span> : <Moment at={grant.until} />}</td>
                <td className={state === 'live' ? '' : state === 'not-yet' ? 'lamp' : state === 'expired' ? 'quiet' : 'magenta'}>{stateWords[state]}</td>
                <td className="number">{grant.opens}</td>
                <td className="number">{grant.refusals > 0 ? <span className="magenta">{grant.refusals}</span> : 0}</td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <ConfirmCut open={asking} busy={busy} title={`Revoke access for ${String(new Set(live.map((grant) => grant.recipientId)).size)} people?`} action={`Revoke ${String(live.length)}`} onClose={() => { setAsking(false); }} onConfirm={() => void act('revoke', live.map((grant) => grant.id))}>
        <p>{[...new Set(live.map(personName))].join(', ')}</p>
        <p>They are shut out at once: a page that is open now goes blank within two seconds. {beyondReach(live)} Everybody else keeps what they have, and this can be undone.</p>
      </ConfirmCut>
    </>
  );
}

/** What revoking cannot bring back, said before it is done. */
function beyondReach(grants: readonly GrantRow[]): string {
  const prints = grants.reduce((sum, grant) => sum + grant.printsMade, 0);
  const mayKeep = grants.filter((grant) => grant.rights.includes('keep') && grant.opens > 0).length;
  const parts = [prints > 0 ? `${String(prints)} print ${prints === 1 ? 'rendition' : 'renditions'} already made` : null, mayKeep > 0 ? `whatever ${String(mayKeep)} of them may have kept` : null].filter((part) => part !== null);
  return parts.length === 0 ? 'Nothing was printed or kept.' : `Beyond reach: ${parts.join(', and ')}.`;
}

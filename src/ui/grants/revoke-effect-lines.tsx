'use client';

import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { RevokeEffect, StillReads, WayIn } from '@/contracts/access';
import { counted } from '@/core/base/counted';
import type { GrantId } from '@/core/base/ids';
import { wayText } from '@/core/insight/after-words';
import { Note } from '@/ui/shell/notice';
import { ReadsOnNote } from '@/ui/grants/reads-on-note';
import { beyondReachText, closesText, forMany, namesText, ownWays } from '@/ui/grants/revoke-words';

const MOST_SHOWN = 12;

function closable(still: readonly StillReads[], which: (way: WayIn) => boolean): GrantId[] {
  return [
    ...new Set(
      still.flatMap(({ ways }) =>
        ways.filter((way) => way.mayClose && which(way)).map(({ grant }) => grant),
      ),
    ),
  ];
}

/** Offers to close ways that would stay open. */
function CloseToo({
  ids,
  label,
  also,
  onAlso,
}: {
  readonly ids: readonly GrantId[];
  readonly label: string;
  readonly also: readonly GrantId[];
  readonly onAlso: (also: readonly GrantId[]) => void;
}) {
  if (ids.length === 0) return null;
  const isOn = ids.every((id) => also.includes(id));
  const others = also.filter((id) => !ids.includes(id));
  return (
    <FormControlLabel
      control={
        <Checkbox
          size="small"
          checked={isOn}
          onChange={(_event, on) => {
            onAlso(on ? [...others, ...ids] : others);
          }}
        />
      }
      label={label}
    />
  );
}

/**
 * What a revocation does to people, before it is made: who is shut out, who still reads and how,
 * and what stays where it is.
 */
export function RevokeEffectLines({
  effect,
  also,
  onAlso,
}: {
  readonly effect: RevokeEffect;
  readonly also: readonly GrantId[];
  readonly onAlso: (also: readonly GrantId[]) => void;
}) {
  const { shutOut, readsOn, stillReads, ofNone, openLinks } = effect;
  const out = [...closesText(effect.closes), ...shutOut];
  const [own, many] = [closable(stillReads, ownWays), closable(stillReads, forMany)];
  return (
    <>
      {out.length > 0 && (
        <p>
          <b>Shut out at once:</b> {namesText(out)}. A page that is open now goes blank within two
          seconds.
        </p>
      )}
      <ReadsOnNote people={readsOn} />
      {stillReads.length > 0 && (
        <Note>
          <b>Still reads, by another way:</b>
          <ul className="points">
            {stillReads.slice(0, MOST_SHOWN).map(({ recipient, name, document, title, ways }) => (
              <li key={`${recipient} ${document}`}>
                {name}, “{title}”: {ways.map(wayText).join('; ')}
              </li>
            ))}
          </ul>
          {stillReads.length > MOST_SHOWN && <p>and {stillReads.length - MOST_SHOWN} more.</p>}
          <CloseToo
            ids={own}
            also={also}
            onAlso={onAlso}
            label={
              own.length === 1
                ? 'Close this way too'
                : `Close these ways too (${String(own.length)} grants)`
            }
          />
          <CloseToo
            ids={many}
            also={also}
            onAlso={onAlso}
            label="Also revoke the domain, for everybody there"
          />
        </Note>
      )}
      {openLinks.map(({ title, dispatch }) => (
        <p key={`${title} ${dispatch}`} className="notice">
          “{title}” stays open to anyone with the open link of {dispatch}.
        </p>
      ))}
      {ofNone > 0 && (
        <p className="quiet">
          {counted(ofNone, 'person', 'people')} could open nothing in it anyway.
        </p>
      )}
      <p>{beyondReachText(effect)} Nobody else is affected. You can undo this.</p>
    </>
  );
}

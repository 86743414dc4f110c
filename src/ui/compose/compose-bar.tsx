'use client';

import { useId, useState, type ReactNode } from 'react';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import dynamic from 'next/dynamic';
import Popover from '@mui/material/Popover';
import Link from 'next/link';
import type { ComposeStart } from '@/contracts/draft';
import { seenAs } from '@/ui/compose/seen-as';
import { layersWords } from '@/ui/watermark/mark-words';
import { counted } from '@/core/base/counted';
import { addRows, LINK_KEY, putTerms, removeRows, rowOf } from '@/core/compose/sheet';
import { isInTheClear } from '@/core/policy/delivery';
import { rightsLine } from '@/core/policy/rights-line';
import { termsAt } from '@/core/policy/saved-terms';
import { BeginningLines } from '@/ui/compose/beginnings';
import { HandOver } from '@/ui/compose/hand-over';
import type { Composed } from '@/ui/compose/use-composed';
import { MessagePart } from '@/ui/compose/message-part';
import type { GridRow } from '@/ui/recipients/grid-view';
import { MomentField } from '@/ui/time/moment-field';
import { ChipButton } from '@/ui/shell/chips';
import { formWords } from '@/ui/words/delivery-words';

const Designer = dynamic(() => import('@/ui/watermark/designer').then((all) => all.Designer));

type Props = {
  readonly start: ComposeStart;
  readonly composed: Composed;
  readonly selected: ReadonlySet<string>;
  /** The row that is looked at. */
  readonly active: GridRow | null;
};

/** What is the same for all of a dispatch: its saved terms, message, delivery and watermark. */
export function ComposeBar(props: Props) {
  const { start, composed, active } = props;
  const { way, isClear, note } = composed;
  return (
    <div className="row compose-bar">
      {!isClear && <TermsMenu {...props} />}
      <Fold name={note.trim() === '' ? 'Message' : 'Message ✓'} title="Message">
        <MessagePart start={start} composed={composed} active={active} />
      </Fold>
      <Fold
        name={`${formWords[way.form].name}, ${way.delivery === 'mail' ? 'mailed' : 'by hand'}`}
        title="Delivery"
      >
        <DeliveryPart start={start} composed={composed} />
      </Fold>
      <Fold name={whenWords(start, composed)} title="When">
        <WhenPart start={start} composed={composed} />
      </Fold>
      {!isClear && <WatermarkPart composed={composed} active={active} />}
    </div>
  );
}

/** When it leaves: as soon as it may, or at a time. */
function WhenPart({
  start,
  composed: { leavesAt, setLeavesAt },
}: Pick<Props, 'start' | 'composed'>) {
  return (
    <>
      <p className="quiet">
        {start.heldFor === 0
          ? 'It leaves as soon as you send it.'
          : `It is held back for ${counted(start.heldFor, 'minute')}, and can be stopped until then.`}
      </p>
      <MomentField
        label="Leaves"
        value={leavesAt}
        none={start.heldFor === 0 ? 'At once' : 'After that'}
        onChange={setLeavesAt}
      />
    </>
  );
}

function whenWords({ heldFor }: ComposeStart, { leavesAt }: Composed): string {
  if (leavesAt !== null) return 'Later';
  return heldFor === 0 ? 'At once' : `Held ${counted(heldFor, 'minute')}`;
}

/** A part that folds out below its name. */
function Fold({
  name,
  title,
  children,
}: {
  readonly name: string;
  readonly title: string;
  readonly children: ReactNode;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const id = useId();
  return (
    <>
      <ChipButton
        aria-haspopup="dialog"
        aria-expanded={anchor !== null}
        aria-label={name === title ? title : `${title}: ${name}`}
        onClick={(event) => {
          setAnchor(event.currentTarget);
        }}
      >
        {name} ▾
      </ChipButton>
      <Popover
        open={anchor !== null}
        anchorEl={anchor}
        anchorOrigin={{ vertical: 'bottom', horizontal: 'left' }}
        onClose={() => {
          setAnchor(null);
        }}
        transitionDuration={0}
        slotProps={{
          paper: { className: 'grid-editor wide', role: 'dialog', 'aria-labelledby': id },
        }}
      >
        <div className="stack loose">
          <h2 id={id}>{title}</h2>
          {children}
        </div>
      </Popover>
    </>
  );
}

/** Saved terms, for the rows that are selected, or for all. */
function TermsMenu({ start, composed, selected }: Omit<Props, 'active'>) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { work, begins } = composed;
  const { saved, common } = work.sheet;
  const close = () => {
    setAnchor(null);
  };
  const named = start.terms.find(({ id }) => id === saved)?.name;
  const name =
    selected.size > 0
      ? `Terms of ${String(selected.size)}`
      : `Terms: ${named ?? (common === null ? 'defaults' : 'own')}`;
  return (
    <>
      <ChipButton
        aria-haspopup="menu"
        aria-expanded={anchor !== null}
        onClick={(event) => {
          setAnchor(event.currentTarget);
        }}
      >
        {name} ▾
      </ChipButton>
      <Menu open={anchor !== null} anchorEl={anchor} onClose={close} transitionDuration={0}>
        {start.terms.map((each) => (
          <MenuItem
            key={each.id}
            onClick={() => {
              work.change((sheet) =>
                putTerms(sheet, selected.size > 0 ? selected : 'common', {
                  id: each.id,
                  terms: termsAt(each, start.now),
                }),
              );
              if (selected.size === 0) composed.setWatermark(each.watermark);
              close();
            }}
          >
            <span className="suggestion">
              <b>{each.name}</b>{' '}
              <span className="quiet">{rightsLine(each.rights, each.prints)}</span>
            </span>
          </MenuItem>
        ))}
        {selected.size === 0 && (
          <MenuItem
            disabled={common === null}
            onClick={() => {
              work.change((sheet) => ({ ...sheet, common: null, saved: null }));
              close();
            }}
          >
            <div>
              <b>Defaults</b>
              <BeginningLines begins={begins} />
            </div>
          </MenuItem>
        )}
        {start.terms.length === 0 && (
          <MenuItem component={Link} href="/terms">
            No terms are saved yet. They are saved under Terms.
          </MenuItem>
        )}
      </Menu>
    </>
  );
}

function DeliveryPart({ start, composed }: Pick<Props, 'start' | 'composed'>) {
  const { work, way, setWay } = composed;
  const hasLink = work.sheet.rows.some(({ kind }) => kind === 'link');
  return (
    <>
      <HandOver
        way={way}
        rules={start.rules}
        onChange={setWay}
        openLink={hasLink}
        onOpenLink={(on) => {
          work.change((sheet) =>
            on ? addRows(sheet, [rowOf(LINK_KEY, 'link')]) : removeRows(sheet, new Set([LINK_KEY])),
          );
        }}
        canOpenLink={!isInTheClear(way.form)}
      />
    </>
  );
}

function WatermarkPart({ composed, active }: Pick<Props, 'composed' | 'active'>) {
  const { watermark, setWatermark, documents } = composed;
  const [isOpen, setOpen] = useState(false);
  return (
    <>
      <ChipButton
        aria-haspopup="dialog"
        aria-expanded={isOpen}
        onClick={() => {
          setOpen(true);
        }}
      >
        {layersWords(watermark)} ▾
      </ChipButton>
      {isOpen && (
        <Designer
          title="Watermark"
          start={watermark}
          shownAs={{ ...seenAs(active), document: documents[0] ?? null }}
          onDone={(layers) => {
            setOpen(false);
            if (layers !== null) setWatermark(layers);
          }}
        />
      )}
    </>
  );
}

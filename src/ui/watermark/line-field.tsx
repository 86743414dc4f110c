'use client';

import { useId, useState, type KeyboardEvent } from 'react';
import Button from '@mui/material/Button';
import Divider from '@mui/material/Divider';
import IconButton from '@mui/material/IconButton';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { MAX_LINE } from '@/core/watermark/layers';
import { attributePiece, lineOf, partsOf, PIECES, type LinePart } from '@/core/watermark/pieces';
import { pieceName, pieceWords } from '@/ui/watermark/mark-words';

/** Parts with words, perhaps none yet, before, between and after pieces, so that one can type anywhere. */
function withGaps(parts: readonly LinePart[]): LinePart[] {
  const spaced: LinePart[] = [];
  for (const part of parts) {
    if (part.kind === 'piece' && spaced.at(-1)?.kind !== 'words')
      spaced.push({ kind: 'words', text: '' });
    spaced.push(part);
  }
  if (spaced.at(-1)?.kind !== 'words') spaced.push({ kind: 'words', text: '' });
  return spaced;
}

type Props = { readonly line: string; readonly onChange: (line: string) => void };

/** The line of a layer: words that are typed, and pieces that are chosen and stay whole. */
export function LineField({ line, onChange }: Props) {
  const label = useId();
  const parts = withGaps(partsOf(line));
  const put = (next: readonly LinePart[]) => {
    const text = lineOf(next);
    if (text.length <= MAX_LINE) onChange(text);
  };
  const remove = (at: number) => {
    put(parts.filter((_part, i) => i !== at));
  };
  const move = (at: number, by: -1 | 1) => {
    const [piece] = parts.slice(at, at + 1);
    const others = parts.filter((_part, i) => i !== at);
    if (piece !== undefined) put(others.toSpliced(at + by, 0, piece));
  };
  const add = (name: string) => {
    const isFirst = line.trim() === '' || line.endsWith(' ');
    put([...parts, ...(isFirst ? [] : [SPACE]), { kind: 'piece', name }]);
  };
  return (
    <div className="stack tight">
      <span id={label} className="small quiet">
        What it says
      </span>
      <div className="line-field" role="group" aria-labelledby={label}>
        {parts.map((part, i) =>
          part.kind === 'piece' ? (
            <PieceChip
              key={i}
              name={part.name}
              onRemove={() => {
                remove(i);
              }}
              onMove={(by) => {
                move(i, by);
              }}
            />
          ) : (
            <input
              key={i}
              className="line-words"
              aria-label={i === 0 ? 'Words' : 'Words after the piece'}
              value={part.text}
              size={Math.max(2, part.text.length)}
              onChange={({ target: { value } }) => {
                put(parts.map((each, at) => (at === i ? { kind: 'words', text: value } : each)));
              }}
            />
          ),
        )}
      </div>
      <AddPiece onAdd={add} />
    </div>
  );
}

const SPACE: LinePart = { kind: 'words', text: ' · ' };

function PieceChip({
  name,
  onRemove,
  onMove,
}: {
  readonly name: string;
  readonly onRemove: () => void;
  readonly onMove: (by: -1 | 1) => void;
}) {
  const words = pieceName(name);
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'ArrowLeft') onMove(-1);
    else if (event.key === 'ArrowRight') onMove(1);
    else if (event.key === 'Delete' || event.key === 'Backspace') onRemove();
    else return;
    event.preventDefault();
  };
  return (
    <span className="mark-piece">
      {words}
      <IconButton
        size="small"
        aria-label={`Remove ${words}`}
        title="Remove; arrow keys move it"
        onClick={onRemove}
        onKeyDown={onKeyDown}
      >
        ×
      </IconButton>
    </span>
  );
}

/** The pieces there are, and attributes of documents by their name. */
function AddPiece({ onAdd }: { readonly onAdd: (name: string) => void }) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [attribute, setAttribute] = useState('');
  const close = () => {
    setAnchor(null);
    setAttribute('');
  };
  const addAttribute = () => {
    const name = attribute.replaceAll(/[{}]/g, '').trim();
    if (name === '') return;
    onAdd(attributePiece(name));
    close();
  };
  return (
    <>
      <div>
        <Button
          size="small"
          aria-haspopup="menu"
          onClick={(event) => {
            setAnchor(event.currentTarget);
          }}
        >
          Add a piece ▾
        </Button>
      </div>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close} transitionDuration={0}>
        {PIECES.map((name) => (
          <MenuItem
            key={name}
            onClick={() => {
              onAdd(name);
              close();
            }}
          >
            {pieceWords[name]}
          </MenuItem>
        ))}
        <Divider />
        <li className="menu-field">
          <TextField
            label="An attribute, by its name"
            value={attribute}
            onChange={({ target }) => {
              setAttribute(target.value);
            }}
            onKeyDown={(event) => {
              // What is typed is not for the menu to find an entry by.
              if (event.key !== 'Escape') event.stopPropagation();
              if (event.key === 'Enter') addAttribute();
            }}
          />
          <Button onClick={addAttribute}>Add</Button>
        </li>
      </Menu>
    </>
  );
}

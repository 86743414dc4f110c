/** What a key asks of the grid. */
export type GridKey =
  | {
      readonly kind: 'move';
      readonly rows: number;
      readonly columns: number;
      readonly extend: boolean;
    }
  | { readonly kind: 'count'; readonly digit: number }
  | {
      readonly kind:
        | 'toggle'
        | 'edit'
        | 'clear'
        | 'fill-down'
        | 'select-all'
        | 'select-none'
        | 'remove'
        | 'undo'
        | 'redo';
    };

/** Farther than any list is long: as far as it goes. */
const END = Number.MAX_SAFE_INTEGER;
const PAGE = 10;

const MOVES: Readonly<Record<string, readonly [rows: number, columns: number]>> = {
  ArrowUp: [-1, 0],
  ArrowDown: [1, 0],
  ArrowLeft: [0, -1],
  ArrowRight: [0, 1],
  PageUp: [-PAGE, 0],
  PageDown: [PAGE, 0],
  Home: [0, -END],
  End: [0, END],
};
const FAR: typeof MOVES = {
  Home: [-END, -END],
  End: [END, END],
  ArrowUp: [-END, 0],
  ArrowDown: [END, 0],
};
const PLAIN: Readonly<Record<string, 'toggle' | 'edit' | 'clear' | 'select-none'>> = {
  ' ': 'toggle',
  Enter: 'edit',
  F2: 'edit',
  Delete: 'clear',
  Backspace: 'clear',
  Escape: 'select-none',
};
const WITH_CONTROL: Readonly<
  Record<string, 'fill-down' | 'select-all' | 'remove' | 'undo' | 'redo'>
> = {
  d: 'fill-down',
  a: 'select-all',
  z: 'undo',
  y: 'redo',
  Delete: 'remove',
  Backspace: 'remove',
};

type Pressed = Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'shiftKey' | 'altKey'>;

/** What was pressed, as the grid takes it; `null`: it is not for the grid. */
export function gridKeyOf({ key, ctrlKey, metaKey, shiftKey, altKey }: Pressed): GridKey | null {
  if (altKey) return null;
  const isFar = ctrlKey || metaKey;
  const move = (isFar ? FAR : MOVES)[key];
  if (move !== undefined)
    return { kind: 'move', rows: move[0], columns: move[1], extend: shiftKey };
  if (isFar) return controlKey(key, shiftKey);
  if (/^\d$/.test(key)) return { kind: 'count', digit: Number(key) };
  const kind = PLAIN[key];
  return kind === undefined ? null : { kind };
}

function controlKey(key: string, shift: boolean): GridKey | null {
  const kind = WITH_CONTROL[key.length === 1 ? key.toLowerCase() : key];
  if (kind === undefined) return null;
  return { kind: kind === 'undo' && shift ? 'redo' : kind };
}

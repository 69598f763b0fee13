import { moveSelection, widerSelection } from '../openTune/selection';
import { always, type Command } from './command';

type Move = Parameters<typeof moveSelection>[2];

const MOVES: readonly (readonly [Move, string, string])[] = [
  ['next', 'arrowright', 'Next note'],
  ['previous', 'arrowleft', 'Previous note'],
  ['next-bar', 'arrowdown', 'Next bar'],
  ['previous-bar', 'arrowup', 'Previous bar'],
  ['first', 'home', 'First note'],
  ['last', 'end', 'Last note'],
];

const move = ([way, key, label]: (typeof MOVES)[number], extends_: boolean): Command => ({
  id: extends_ ? `extend-${way}` : way,
  label: extends_ ? `Extend to the ${label.toLowerCase()}` : label,
  group: 'go',
  keys: [extends_ ? `shift+${key}` : key],
  isWalk: true,
  ...(extends_ ? { family: 'Extend the selection' } : {}),
  applies: ({ notes }) => notes.length > 0,
  run: ({ tune, open, select }) => select(moveSelection(tune, open.selection, way, extends_)),
});

/** From note to note, and the selection. */
export const GO_COMMANDS: readonly Command[] = [
  ...MOVES.map((one) => move(one, false)),
  ...MOVES.map((one) => move(one, true)),
  {
    id: 'choose-wider',
    label: 'Select the bars, then the part, then the tune',
    help: 'with the mouse: drag over notes; double-click selects a bar',
    group: 'go',
    keys: ['ctrl+a'],
    applies: ({ notes }) => notes.length > 0,
    run: ({ tune, open, select }) => select(widerSelection(tune, open.selection)),
  },
  {
    id: 'choose-nothing',
    label: 'Clear the selection',
    group: 'go',
    keys: ['escape'],
    applies: always,
    run: ({ select }) => select(null),
  },
  ...Array.from({ length: 9 }, (_, at): Command => {
    const pass = at + 1;
    return {
      id: `show-pass-${pass}`,
      label: `Show time ${pass} through the part`,
      family: 'Show that time through the part',
      group: 'go',
      keys: [String(pass)],
      applies: ({ passes }) => pass <= passes,
      run: ({ part, showPass }) => showPass(part, pass),
    };
  }),
  {
    id: 'begin-entry',
    label: 'Enter notes after this one',
    help: 'Esc ends it',
    group: 'go',
    keys: ['enter'],
    applies: ({ open }) => open.entry === null,
    run: ({ beginEntry }) => beginEntry(),
  },
  {
    id: 'undo',
    label: 'Undo',
    group: 'go',
    keys: ['ctrl+z'],
    isPageWide: true,
    applies: ({ open }) => open.past.length > 0,
    run: ({ undo }) => undo(),
  },
  {
    id: 'redo',
    label: 'Redo',
    group: 'go',
    keys: ['ctrl+y', 'ctrl+shift+z'],
    isPageWide: true,
    applies: ({ open }) => open.future.length > 0,
    run: ({ redo }) => redo(),
  },
  {
    id: 'palette',
    label: 'Find a command by name',
    group: 'go',
    keys: ['ctrl+k'],
    isPageWide: true,
    applies: always,
    run: ({ showPalette }) => showPalette(),
  },
];

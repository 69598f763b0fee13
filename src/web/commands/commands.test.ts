import { noteStates } from '#core/noteStates';
import { reportTune } from '#core/report';
import { type Direction, writtenNotes } from '#core/tune';
import { parseTuning } from '#core/tuning';
import { part, tune } from '../../core/testing/tunes';
import { type Bench, COMMAND_GROUPS } from './command';
import { commandOf, commandOfKey, COMMANDS, menuLabel, titleOf } from './commands';
import { comboOf, keysShown, keysSpoken } from './keys';
import { SHEETS } from './sheetList';

const plain = { ctrlKey: false, metaKey: false, altKey: false, shiftKey: false };

/** A bench with the given notes chosen; what is done to it is written down. */
function benchOn(ids: readonly string[], line = 'D4 (E4 F#4) G4') {
  const t = tune([part('A', line)], { form: ['A', 'A'] });
  const report = reportTune(t);
  const done: unknown[] = [];
  const deed =
    (name: string) =>
    (...args: unknown[]) =>
      void done.push([name, ...args]);
  const bench = {
    tune: t,
    report,
    states: noteStates(report, {}),
    notes: writtenNotes(t),
    ids,
    barIds: ids.length > 0 ? ['Ab1'] : [],
    where: 'bar 1 of A',
    part: 'A',
    passes: 2,
    thisPassOnly: false,
    clipboard: [],
    open: {
      id: 'one',
      entry: null,
      past: [],
      future: [],
      passInView: {},
      selection: ids.length > 0 ? { anchor: ids[0]!, focus: ids[ids.length - 1]! } : null,
    },
    ...Object.fromEntries(
      [
        'edit',
        'select',
        'copy',
        'gesture',
        'lock',
        'startOnOther',
        'setThisPassOnly',
        'showPass',
        'beginEntry',
        'undo',
        'redo',
        'showSheet',
        'showPalette',
        'keepFile',
        'goTo',
        'play',
        'toggleLoop',
        'stepPractice',
        'remember',
        'showFindings',
        'tapTempo',
      ].map((name) => [name, deed(name)]),
    ),
    goal: { set: deed('goal'), reset: deed('goal') },
  } as unknown as Bench;
  return { bench, done };
}

test('no key stands for two commands, and no two have one name', () => {
  const keys = COMMANDS.flatMap((command) => command.keys);
  expect(keys.filter((key, at) => keys.indexOf(key) !== at)).toEqual([]);
  const ids = COMMANDS.map(({ id }) => id);
  expect(new Set(ids).size).toBe(ids.length);
  const labels = COMMANDS.map(({ label }) => label);
  expect(new Set(labels).size).toBe(labels.length);
});

test('a string tuned otherwise is named by its pitch in a menu, the others by place alone', () => {
  const usual = benchOn([]).bench.tune;
  const crossed = { ...usual, tuning: parseTuning('A3 E4 A4 E5')! };
  expect(menuLabel(commandOf('on-G'), usual)).toBe('On the G string');
  expect(menuLabel(commandOf('on-G'), crossed)).toBe('On the G (A) string');
  expect(menuLabel(commandOf('on-D'), crossed)).toBe('On the D (E) string');
  expect(menuLabel(commandOf('on-E'), crossed)).toBe('On the E string');
});

test('every command belongs to a group of the key sheet, every sheet has its command', () => {
  for (const { id, group } of COMMANDS)
    expect([id, Object.keys(COMMAND_GROUPS)]).toEqual([id, expect.arrayContaining([group])]);
  for (const sheet of Object.keys(SHEETS)) expect(commandOf(sheet).asks).toBe(true);
});

test('what does not apply is not offered: without notes there is nothing to choose, play or bow', () => {
  const { bench } = benchOn([], 'z:8');
  const offered = COMMANDS.filter((command) => command.applies(bench)).map(({ id }) => id);
  for (const id of ['next', 'slur', 'lock-down', 'play', 'bowings', 'copy', 'undo', 'note'])
    expect(offered).not.toContain(id);
  for (const id of ['tune', 'form', 'begin-entry', 'dance', 'keys', 'palette']) expect(offered).toContain(id);
});

test('a command that applies does something, and what it does is the same by key', () => {
  const { bench, done } = benchOn(['A2', 'A3']);
  for (const command of COMMANDS) {
    if (!command.applies(bench)) continue;
    const before = done.length;
    command.run(bench);
    expect([command.id, done.length > before]).toEqual([command.id, true]);
  }
});

test('a lock that is there is taken off by the same key', () => {
  const t = tune([part('A', 'D4 E4')]);
  const locked = (direction: Direction | undefined) => {
    const { bench, done } = benchOn(['A1']);
    const states = new Map([...bench.states].map(([id, state]) => [id, { ...state, lock: direction ?? null }]));
    commandOf('lock-down').run({ ...bench, tune: t, states });
    return done[0];
  };
  expect(locked(undefined)).toEqual(['lock', 'down']);
  expect(locked('down')).toEqual(['lock', null]);
  expect(locked('up')).toEqual(['lock', 'down']);
});

test.each([
  [{ key: 's' }, 'slur'],
  [{ key: 'S' }, 'slur'],
  [{ key: 'S', shiftKey: true }, 'mark-slide'],
  [{ key: 'L', shiftKey: true }, 'longer'],
  [{ key: 'ArrowRight', shiftKey: true }, 'extend-next'],
  [{ key: 'Z', ctrlKey: true, shiftKey: true }, 'redo'],
  [{ key: 'z', metaKey: true }, 'undo'],
  [{ key: '?', shiftKey: true }, 'keys'],
  [{ key: ' ' }, 'play'],
  [{ key: '3' }, 'show-pass-3'],
])('%j is %s', (keys, id) => {
  expect(commandOfKey({ ...plain, ...keys })!.id).toBe(id);
});

test('a key that nothing has is nobody’s', () => {
  expect(commandOfKey({ ...plain, key: 'z' })).toBeNull();
  expect(() => commandOf('nothing')).toThrow('no command is called nothing');
});

test.each([
  [{ key: 'ArrowUp', altKey: true, shiftKey: true }, 'alt+shift+arrowup'],
  [{ key: 'V', ctrlKey: true, shiftKey: true }, 'ctrl+shift+v'],
  [{ key: 'c', metaKey: true }, 'ctrl+c'],
  [{ key: '+', shiftKey: true }, '+'],
  [{ key: '=' }, '+'],
  [{ key: 'Backspace' }, 'delete'],
  [{ key: 'Delete', shiftKey: true }, 'shift+delete'],
])('%j is %s', (keys, combo) => {
  const event = { ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...keys };
  expect(comboOf(event)).toBe(combo);
});

test('keys are shown as a player reads them and spoken as a reader of the screen takes them', () => {
  expect(['alt+shift+arrowup', 'ctrl+c', '+', '-', ' ', 'ctrl++'].map(keysShown)).toEqual([
    'Alt Shift ↑',
    'Ctrl C',
    '+',
    '−',
    'Space',
    'Ctrl +',
  ]);
  expect(keysSpoken(['ctrl+y', 'ctrl+shift+z'])).toBe('Control+y Control+Shift+z');
  expect(keysSpoken(['+', ' '])).toBe('Plus Space');
  expect(keysSpoken([])).toBeUndefined();
  expect(titleOf(commandOf('patterns'))).toBe('Bowing patterns (P)');
});

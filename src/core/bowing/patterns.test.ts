import { fraction } from '#core/base';
import type { Link, Tune, TuneEvent } from '#core/tune';
import { bar, note, part, tune } from '../testing/tunes';
import { applyPattern, gridUnit, patternLinks } from './applyPattern';
import { findPattern, patternFigures, slotAt } from './patterns';

const SIGNS: Record<Link, string> = { start: '|', change: '|', slur: '-', hook: '=', retake: 'r' };

/** Links as signs, note by note: `|` begins a stroke, `-` shares it, `=` shares it after a stop. */
function signs(t: Tune, name: string, options = {}): string {
  const links = patternLinks(t, findPattern(name)!, options);
  return t.parts
    .flatMap(({ events }) => events)
    .flatMap((e) => (e.kind === 'note' ? [SIGNS[links.get(e.id) ?? e.link]] : []))
    .join('');
}

const RUNNING = 'D4 E4 F#4 G4 A4 B4 C#5 D5';
const running = tune([part('A', `${RUNNING} | ${RUNNING}`)]);

test.each([
  ['saw', '||||||||'],
  ['pair-first-shuffle', '|-|||-||'],
  ['singles-first-shuffle', '|||-|||-'],
  ['middle-pair', '||-|||-|'],
  ['pairs', '|-|-|-|-'],
  ['offbeat-pairs', '||-|-|-|'],
  ['three-and-one', '|--||--|'],
  ['one-and-three', '||--||--'],
  ['three-three-two', '|--|--|-'],
  ['fours', '|---|---'],
])('%s on running eighths starts afresh at each bar line', (name, expected) => {
  expect(signs(running, name)).toBe(expected + expected);
});

test('running offbeat pairs slur over the bar line too', () => {
  expect(signs(running, 'running-offbeat-pairs')).toBe('||-|-|-|' + '-|-|-|-|');
  const links = patternLinks(running, findPattern('running-offbeat-pairs')!);
  expect(links.get('A9')).toBe('slur');
});

const jig = tune([part('A', 'D4 E4 F#4 G4 A4 B4 | D4 E4 F#4 G4 A4 B4')], { meter: { num: 6, den: 8 } });

test.each([
  ['two-and-one', '|-||-|'],
  ['one-and-two', '||-||-'],
  ['threes', '|--|--'],
  ['three-and-three-singles', '|--|||'],
])('%s on a running jig', (name, expected) => {
  expect(signs(jig, name)).toBe(expected + expected);
});

test('saw is one note a stroke whatever its length', () => {
  const t = tune([part('A', 'D4:3 E4:0.5 F#4:0.5 G4:4')]);
  expect(signs(t, 'saw')).toBe('||||');
});

test('the last cycle is cut by the bar line', () => {
  expect(signs(running, 'three-and-one', { ids: undefined })).toBe('|--||--||--||--|');
  const waltz = tune([part('A', 'D4 E4 F#4 G4 A4 B4 | D4 E4 F#4 G4 A4 B4')], { meter: { num: 3, den: 4 } });
  expect(signs(waltz, 'three-and-one')).toBe('|--||-'.repeat(2));
  expect(signs(waltz, 'three-and-one', { runsOn: true })).toBe('|--||--||--|');
});

test('a pickup takes the slots that end at the bar line', () => {
  const one = tune([part('A', `A4 | ${RUNNING}`)]);
  expect(signs(one, 'three-and-one')).toBe('|' + '|--||--|');
  const two = tune([part('A', `A4 B4 | ${RUNNING}`)]);
  expect(signs(two, 'pair-first-shuffle')).toBe('||' + '|-|||-||');
  expect(signs(two, 'singles-first-shuffle')).toBe('|-' + '|||-|||-');
  const three = tune([part('A', `G4 A4 B4 | ${RUNNING}`)]);
  // The pickup begins inside a pair: what is left of that slot is a stroke of its own.
  expect(signs(three, 'pair-first-shuffle')).toBe('|||' + '|-|||-||');
  expect(signs(two, 'pairs', { runsOn: true })).toBe('|-' + '|-|-|-|-');
});

test('a long note swallows the slots it covers, and a note inside a partly covered slot starts a stroke', () => {
  // Quarter, quarter, half: slots 2 1 1 2 1 1 – the first quarter fills the pair, the second both singles.
  expect(signs(tune([part('A', 'D4:2 E4:2 F#4:4')]), 'pair-first-shuffle')).toBe('|||');
  // Dotted quarter covers the pair and half of nothing more; the eighth after it has its single slot.
  expect(signs(tune([part('A', 'D4:3 E4 F#4:4')]), 'pair-first-shuffle')).toBe('|||');
  // 1, then 4 units from inside slot 1: the note at unit 5 begins inside the slot of units 4–5.
  expect(signs(tune([part('A', 'D4 E4:4 F#4 G4:2')]), 'pair-first-shuffle')).toBe('|-||');
});

test('rests fill slots and make no stroke; notes around a rest in one slot are hooked', () => {
  expect(signs(tune([part('A', 'D4 z F#4 G4 A4:4')]), 'pair-first-shuffle')).toBe('||||');
  expect(signs(tune([part('A', 'D4 z E4 F#4 G4:4')]), 'three-and-one')).toBe('|=||');
});

test('two notes of one pitch in a slot are a hook', () => {
  expect(signs(tune([part('A', 'D4 D4 F#4 G4 A4:4')]), 'pairs')).toBe('|=|-|');
});

test('a tied note is one', () => {
  const events: TuneEvent[] = [
    bar('b1'),
    note('n1', 'D4', 1),
    note('n2', 'E4', 1, { tie: true }),
    note('n3', 'E4', 1),
    note('n4', 'F#4', 1),
    note('n5', 'G4', 4),
  ];
  // Pairs: n1 n2 share; the tied head in the next slot is no new note; n4 lies inside that slot and starts afresh.
  expect(signs(tune([{ name: 'A', events }]), 'pairs')).toBe('|--||');
});

test('a tuplet stays whole in the slot of its first note', () => {
  const third = { duration: fraction(1, 12), tuplet: { notes: 3, inTimeOf: 2 } };
  const events: TuneEvent[] = [
    bar('b1'),
    note('n1', 'D4', 1, { ...third, tuplet: { ...third.tuplet, first: true } }),
    note('n2', 'E4', 1, third),
    note('n3', 'F#4', 1, third),
    note('n4', 'G4', 1),
    note('n5', 'A4', 1),
    note('n6', 'B4', 4),
  ];
  expect(signs(tune([{ name: 'A', events }]), 'singles-first-shuffle')).toBe('|--|-|');
});

test('a dotted or snapped pair counts as two equal units', () => {
  const dotted = tune([part('A', 'D4:1.5 E4:0.5 F#4:0.5 G4:1.5 A4:4')]);
  expect(signs(dotted, 'pairs')).toBe('|-|-|');
  expect(signs(dotted, 'one-and-three')).toBe('||--|');
  expect(signs(dotted, 'singles-first-shuffle')).toBe('|||-|');
});

test('only notes of the range are set, its first note begins a stroke, and locks stay', () => {
  const locked: Tune = {
    ...running,
    parts: [
      {
        ...running.parts[0]!,
        events: running.parts[0]!.events.map((e) =>
          e.kind === 'note' && e.id === 'A4'
            ? { ...e, lock: 'down' as const, linkOnPass: { 2: 'retake' as const } }
            : e,
        ),
      },
    ],
  };
  const set = applyPattern(locked, findPattern('fours')!, { ids: new Set(['A2', 'A3', 'A4']) });
  const notes = set.parts[0]!.events.flatMap((e) => (e.kind === 'note' ? [e] : []));
  expect(notes.slice(0, 5).map(({ link }) => link)).toEqual(['start', 'change', 'slur', 'slur', 'change']);
  expect(notes[3]).toMatchObject({ lock: 'down' });
  expect(notes[3]!.linkOnPass).toBeUndefined();
});

test('a second ending follows the body, not the ending written before it', () => {
  const events: TuneEvent[] = [
    bar('b1'),
    ...['D4', 'E4', 'F#4', 'G4', 'A4', 'B4', 'C#5'].map((pitch, i) => note(`n${i}`, pitch, i === 6 ? 2 : 1)),
    bar('b2', { ending: true, onPlays: [1] }),
    note('e1', 'D4', 3),
    note('e2', 'E4', 5),
    bar('b3', { ending: true, onPlays: [2] }),
    note('f1', 'D4', 1),
    note('f2', 'E4', 7),
  ];
  const t = tune([{ name: 'A', events }], { form: ['A', 'A'] });
  expect(patternLinks(t, findPattern('pairs')!, { runsOn: true }).get('f1')).toBe('change');
  expect(patternLinks(t, findPattern('pairs')!, { runsOn: true }).get('f2')).toBe('slur');
});

test('the grid unit is the commoner of eighth and sixteenth, the eighth on a tie', () => {
  expect(gridUnit(running)).toEqual(fraction(1, 8));
  expect(gridUnit(tune([part('A', 'D4:0.5 E4:0.5 F#4:0.5 G4:0.5 A4 B4 C#5 D5')]))).toEqual(fraction(1, 8));
  expect(gridUnit(tune([part('A', 'D4:0.5 E4:0.5 F#4:0.5 G4:0.5 A4 B4:4')]))).toEqual(fraction(1, 16));
});

test.each([
  // name, per cycle, parity, strokes a bar, parity, drift
  ['pair-first-shuffle', 3, 'odd', 6, 'even', 0],
  ['three-and-one', 2, 'even', 4, 'even', 2],
  ['pairs', 2, 'even', 4, 'even', 0],
  ['offbeat-pairs', 5, 'odd', 5, 'odd', 0],
  ['three-three-two', 3, 'odd', 3, 'odd', 0],
  ['two-and-one', 2, 'even', 4, 'even', 1],
  ['threes', 1, 'odd', 2, 'even', 0],
  ['waltz-beats', 3, 'odd', 3, 'odd', 0],
  ['running-offbeat-pairs', 1, 'odd', 4, 'even', 0],
] as const)('%s: strokes, parity and drift', (name, perCycle, cycleParity, perBar, barParity, drift) => {
  expect(patternFigures(findPattern(name)!)).toMatchObject({
    strokesPerCycle: perCycle,
    parityPerCycle: cycleParity,
    strokesPerBar: perBar,
    parityPerBar: barParity,
    driftUnits: drift,
  });
});

test('the pair-first shuffle has a down-bow on beats 1 and 4, an up-bow on 2 and 3', () => {
  expect(patternFigures(findPattern('pair-first-shuffle')!).beatDirections).toEqual(['down', 'up', 'up', 'down']);
});

test('slots go on backwards before the bar line', () => {
  expect([-4, -3, -2, -1, 0, 1, 2].map((unit) => slotAt([2, 1, 1], unit))).toEqual([-3, -3, -2, -1, 0, 0, 1]);
});

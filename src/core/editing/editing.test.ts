import { formatFraction, fraction } from '#core/base';
import { fingerNote } from '#core/fingering';
import { intervalName, midiOf, parsePitch, type Pitch, pitchName } from '#core/pitch';
import { type NoteEvent, type Tune, unroll, writtenBars, writtenNotes } from '#core/tune';
import { parseTuning, STANDARD_TUNING } from '#core/tuning';
import { part, randomTune, seeded, tune } from '../testing/tunes';
import { setEnding, setKeyFrom, setMeterFrom } from './bars';
import { copyEvents, onNeighbourStrings, pasteEvents, repeatBars } from './clipboard';
import { addPart, movePart, parseForm, removePart, renamePart, setPlays, splitPart } from './form';
import { beginBar, enterEvent } from './insert';
import { changeLengths } from './lengths';
import { toggleMark, toggleStop, toggleTies } from './marks';
import { rebar } from './rebar';
import { removeEvents, silence } from './remove';
import { alterNotes, transposeByOctaves, transposeBySteps, transposeToKey } from './transpose';

const pitch = (name: string): Pitch => parsePitch(name)!;
const newNote = (name: string, eighths: number, more: Partial<NoteEvent> = {}) => ({
  kind: 'note' as const,
  pitch: pitch(name),
  duration: fraction(eighths, 8),
  link: 'change' as const,
  ...more,
});
/** `D4 E4- | (F#4 z` with lengths in eighths: ties by `-`, slurred and hooked notes by `_` and `h` before them. */
function show(t: Tune, name = 'A'): string {
  return writtenBars(t)
    .get(name)!
    .map(({ events }) =>
      events
        .map((event) => {
          const length = formatFraction(fraction(event.duration.n * 8, event.duration.d));
          if (event.kind === 'rest') return `z${length}`;
          const joint = { slur: '_', hook: 'h', retake: 'r', start: '', change: '' }[event.link];
          return `${joint}${pitchName(event.pitch)}:${length}${event.tie ? '-' : ''}`;
        })
        .join(' '),
    )
    .join(' | ');
}
const ids = (...names: string[]) => new Set(names);

describe('entering', () => {
  test('notes fill bars and open new ones; one that does not fit is carried over with a tie', () => {
    let at = { tune: tune([part('A', 'D4:3')]), caret: 'A1' };
    for (const [name, eighths] of [
      ['E4', 3],
      ['F#4', 4],
      ['G4', 1],
    ] as const)
      at = enterEvent(at.tune, at.caret, newNote(name, eighths));
    expect(show(at.tune)).toBe('D4:3 E4:3 F#4:2- | _F#4:2 G4:1');
    expect(unroll(at.tune).notes.map(({ duration }) => formatFraction(duration))).toEqual(['3/8', '3/8', '1/2', '1/8']);
  });

  test('in the middle of a bar a note is put in, and the bar may hold too much', () => {
    const { tune: t } = enterEvent(tune([part('A', 'D4:4 E4:4')]), 'A1', newNote('A4', 2));
    expect(show(t)).toBe('D4:4 A4:2 E4:4');
  });

  test('overwriting takes what the length covers, and shortens what it covers in part', () => {
    const t = tune([part('A', 'D4:2 E4 F#4 G4:4')]);
    expect(show(enterEvent(t, 'A1', newNote('A4', 3), 'overwrite').tune)).toBe('D4:2 A4:3 G4:3');
    expect(show(enterEvent(t, 'A1', newNote('A4', 2), 'overwrite').tune)).toBe('D4:2 A4:2 G4:4');
  });

  test('a bar line closes a pickup; the empty bar that follows is used and not doubled', () => {
    const first = enterEvent(tune([part('A', 'D4')].map(emptyPart)), 'Ab1', newNote('A4', 1));
    const closed = beginBar(first.tune, first.caret);
    const again = beginBar(closed.tune, first.caret);
    expect(again.caret).toBe(closed.caret);
    expect(show(enterEvent(again.tune, again.caret, newNote('D5', 8)).tune)).toBe('A4:1 | D5:8');
    expect(unroll(enterEvent(again.tune, again.caret, newNote('D5', 8)).tune).passes[0]!.hasPickup).toBe(true);
  });

  test('a slur on one pitch or over a rest is a hook; the first note of all starts', () => {
    const t = tune([part('A', 'D4 z')]);
    expect(show(enterEvent(t, 'A1', newNote('D4', 1, { link: 'slur' })).tune)).toBe('D4:1 hD4:1 z1');
    expect(show(enterEvent(t, 'A2', newNote('E4', 1, { link: 'slur' })).tune)).toBe('D4:1 z1 hE4:1');
    const { tune: led } = enterEvent(t, 'Ab1', newNote('A4', 1));
    expect(writtenNotes(led).map(({ link }) => link)).toEqual(['start', 'change']);
  });

  test('an unknown caret is refused', () => {
    expect(() => enterEvent(tune([part('A', 'D4')]), 'nowhere', newNote('D4', 1))).toThrow(RangeError);
  });
});

function emptyPart<T extends { events: readonly unknown[] }>(p: T): T {
  return { ...p, events: p.events.slice(0, 1) };
}

describe('taking away', () => {
  test('a note whose stroke began with what is gone begins the stroke itself', () => {
    expect(show(removeEvents(tune([part('A', 'D4 (E4 F#4) G4')]), ids('A2')))).toBe('D4:1 F#4:1 G4:1');
    expect(writtenNotes(removeEvents(tune([part('A', 'D4 (E4 F#4)')]), ids('A1')))[0]!.link).toBe('start');
  });

  test('a bar that loses all goes too, the first of a part stays', () => {
    const t = tune([part('A', 'D4:8 | E4:8 | F#4:8')]);
    expect(show(removeEvents(t, ids('A2')))).toBe('D4:8 | F#4:8');
    expect(show(removeEvents(t, ids('A1')))).toBe(' | E4:8 | F#4:8');
  });

  test('silenced notes leave their length as rests', () => {
    expect(show(silence(tune([part('A', 'D4:2 (E4 F#4) G4:4')]), ids('A2')))).toBe('D4:2 z1 F#4:1 G4:4');
  });
});

describe('transposing', () => {
  const t = tune([part('A', 'D4 F#4 G#4 | A4')]);

  test('by steps within the key: an accidental keeps its distance from the key', () => {
    expect(show(transposeBySteps(t, ids('A1', 'A2', 'A3'), 1))).toBe('E4:1 G4:1 A#4:1 | A4:1');
    expect(show(transposeBySteps(transposeBySteps(t, ids('A2'), 3), ids('A2'), -3))).toBe(show(t));
  });

  test('by octaves and by semitones on the letter; pins of the old pitch go', () => {
    const pinned = {
      ...t,
      parts: [
        {
          ...t.parts[0]!,
          events: t.parts[0]!.events.map((e) => (e.id === 'A2' ? { ...e, place: 'D' as const, finger: 2 } : e)),
        },
      ],
    };
    expect(show(transposeByOctaves(pinned, ids('A2'), 1))).toContain('F#5');
    expect(writtenNotes(transposeByOctaves(pinned, ids('A2'), 1))[1]).not.toHaveProperty('place');
    expect(show(alterNotes(t, ids('A2'), -1))).toContain('F4');
    expect(show(alterNotes(t, ids('A2'), 5))).toContain('F##4');
  });

  test('the whole tune in another key goes the nearer way, every interval kept', () => {
    const up = transposeToKey(t, { letter: 'G', alter: 0 });
    expect(show(up)).toBe('G4:1 B4:1 C#5:1 | D5:1');
    expect(up.key).toMatchObject({ letter: 'G', mode: 'major' });
    expect(show(transposeToKey(t, { letter: 'B', alter: -1 }))).toBe('Bb3:1 D4:1 E4:1 | F4:1');
    for (let seed = 1; seed <= 30; seed++) {
      const random = randomTune(seed);
      const moved = transposeToKey(random, { letter: 'A', alter: 0 });
      const distances = writtenNotes(moved).map(
        (note, i) => midiOf(note.pitch) - midiOf(writtenNotes(random)[i]!.pitch),
      );
      expect(new Set(distances).size).toBeLessThanOrEqual(1);
    }
  });
});

describe('copies', () => {
  test('copied notes come again with ids of their own, rests and bar lines with them', () => {
    const t = tune([part('A', 'D4:4 z:4 | (E4:4 F#4:4)')]);
    const fragment = copyEvents(t, ids('A1', 'A3'));
    const { tune: pasted, ids: fresh } = pasteEvents(t, 'A4', fragment);
    expect(show(pasted)).toBe('D4:4 z4 | E4:4 _F#4:4 D4:4 z4 | E4:4');
    expect(fresh).toHaveLength(2);
    const all = pasted.parts.flatMap(({ events }) => events.map(({ id }) => id));
    expect(new Set(all).size).toBe(all.length);
  });

  test('repeated bars follow right behind, whole', () => {
    const { tune: t } = repeatBars(tune([part('A', 'D4:8 | (E4:4 F#4:4) | G4:8')]), ids('A2', 'A3'))!;
    expect(show(t)).toBe('D4:8 | E4:4 _F#4:4 | E4:4 _F#4:4 | G4:8');
  });

  test('on the neighbouring strings the same fingers play what lies between them as they are tuned', () => {
    const t = tune([part('A', 'D4 E4 F#4 B4')]);
    const up = onNeighbourStrings(copyEvents(t, ids('A1', 'A2', 'A3', 'A4')), STANDARD_TUNING, 1);
    expect(up.intervals).toEqual(['perfect fifth up']);
    const sounding = up.fragment.flatMap((event) => (event.kind === 'note' ? [pitchName(event.pitch)] : []));
    expect(sounding).toEqual(['A4', 'B4', 'C#5', 'F#5']);
    const crossTuned = parseTuning('A3 E4 A4 C#5')!;
    const mixed = onNeighbourStrings(copyEvents(tune([part('A', 'E4 A4')]), ids('A1', 'A2')), crossTuned, 1);
    expect(mixed.intervals).toEqual(['perfect fourth up', 'major third up']);
    expect(onNeighbourStrings(copyEvents(tune([part('A', 'E5')]), ids('A1')), STANDARD_TUNING, 1).unmoved).toBe(1);
  });

  test('moved fragments keep each note’s finger', () => {
    const random = seeded(5);
    for (let k = 0; k < 60; k++) {
      const name = ['G3', 'A3', 'B3', 'D4', 'E4', 'F#4', 'G4', 'A4', 'B4', 'C#5'][Math.floor(random() * 10)]!;
      const t = tune([part('A', name)]);
      const moved = onNeighbourStrings(copyEvents(t, ids('A1')), STANDARD_TUNING, 1).fragment[0] as NoteEvent;
      expect(fingerNote(moved, STANDARD_TUNING).finger).toBe(fingerNote(writtenNotes(t)[0]!, STANDARD_TUNING).finger);
    }
  });
});

test.each([
  ['D4', 'A4', 'perfect fifth up'],
  ['A4', 'D4', 'perfect fifth down'],
  ['D4', 'F4', 'minor third up'],
  ['F4', 'B4', 'augmented fourth up'],
  ['B4', 'F5', 'diminished fifth up'],
  ['D4', 'D4', 'unison'],
  ['D4', 'D5', 'octave up'],
  ['G3', 'D5', 'octave and perfect fifth up'],
  ['C4', 'C#4', 'augmented unison up'],
])('from %s to %s is a %s', (from, to, name) => {
  expect(intervalName(pitch(from), pitch(to))).toBe(name);
});

describe('bars', () => {
  test('an overfull bar gives what it has too much to the next, and so on until the lines meet again', () => {
    const t = tune([part('A', 'D4:4 A4:2 E4:4 | F#4:6 | G4:8')]);
    expect(show(rebar(t, 'Ab1'))).toBe('D4:4 A4:2 E4:2- | _E4:2 F#4:6 | G4:8');
  });

  test('a short bar takes from the next, and the part ends sooner', () => {
    expect(show(rebar(tune([part('A', 'D4:6 | E4:8 | F#4:8')]), 'Ab1'))).toBe('D4:6 E4:2- | _E4:6 F#4:2- | _F#4:6');
  });

  test('bars drawn anew sound as before', () => {
    for (let seed = 1; seed <= 60; seed++) {
      const plain = randomTune(seed);
      const victim = writtenNotes(plain)[Math.floor(seeded(seed)() * writtenNotes(plain).length)]!;
      const t = { ...changeLengths(plain, ids(victim.id), 'longer'), form: [plain.parts[0]!.name] };
      const bar = t.parts[0]!.events.find(({ kind }) => kind === 'bar')!.id;
      const shape = (x: Tune) =>
        unroll(x).notes.map(
          ({ onset, duration, note }) =>
            `${formatFraction(onset)} ${formatFraction(duration)} ${pitchName(note.pitch)}`,
        );
      const last = t.parts[0]!.events.some((event) => event.kind === 'bar' && event.ending);
      if (!last) expect([seed, ...shape(rebar(t, bar))]).toEqual([seed, ...shape(t)]);
    }
  });

  test('a change of meter or key holds from its bar; one that changes nothing is not kept', () => {
    const t = tune([part('A', 'D4:8 | E4:8 | F#4:8')]);
    const changed = setMeterFrom(t, 'Ab2', { num: 6, den: 8 });
    expect(
      writtenBars(changed)
        .get('A')!
        .map(({ meter }) => meter.num),
    ).toEqual([4, 6, 6]);
    expect(setMeterFrom(changed, 'Ab2', t.meter)).toEqual(t);
    expect(setKeyFrom(t, 'Ab1', { letter: 'G', alter: 0, mode: 'major' }).key.letter).toBe('G');
  });

  test('an ending sounds on its plays only', () => {
    const first = setEnding(tune([part('A', 'D4:8 | E4:8 | F#4:8')], { form: ['A', 'A'] }), ids('Ab2'), [1]);
    const t = setEnding(first, ids('Ab3'), [2]);
    expect(unroll(t).notes.map(({ note }) => note.id)).toEqual(['A1', 'A2', 'A1', 'A3']);
    expect(setEnding(setEnding(t, ids('Ab2'), null), ids('Ab3'), null).parts).toEqual(
      tune([part('A', 'D4:8 | E4:8 | F#4:8')]).parts,
    );
  });
});

describe('the form', () => {
  const t = tune([part('A', 'D4:8 | E4:8'), part('B', 'F#4:8')], { form: ['A', 'A', 'B', 'B'] });

  test('a new part comes after the last pass of the one before, as often', () => {
    expect(addPart(t, 'B').tune.form).toEqual(['A', 'A', 'B', 'B', 'C', 'C']);
  });

  test('a part cut in two plays its halves one after the other', () => {
    const cut = splitPart(t, 'Ab2')!;
    expect(cut.tune.parts.map(({ name }) => name)).toEqual(['A', 'C', 'B']);
    expect(cut.tune.form).toEqual(['A', 'A', 'C', 'C', 'B', 'B']);
    expect(splitPart(t, 'Ab1')).toBeNull();
  });

  test('plays, names and order', () => {
    expect(setPlays(t, 'B', 3).form).toEqual(['A', 'A', 'B', 'B', 'B']);
    expect(renamePart(t, 'A', 'Tail').form).toEqual(['Tail', 'Tail', 'B', 'B']);
    expect(renamePart(t, 'A', 'B')).toBe(t);
    expect(movePart(t, 'B', 0).parts.map(({ name }) => name)).toEqual(['B', 'A']);
    expect(writtenNotes(movePart(t, 'B', 0)).map(({ link }) => link)).toEqual(['start', 'change', 'change']);
    expect(removePart(t, 'A').form).toEqual(['B', 'B']);
    expect(removePart(removePart(t, 'A'), 'B').parts).toHaveLength(1);
  });

  test.each([
    ['AABB', ['A', 'A', 'B', 'B']],
    ['A B A', ['A', 'B', 'A']],
    ['AAXB', null],
    ['', null],
  ])('%j is read as %j', (text, form) => {
    expect(parseForm(t, text)).toEqual(form);
  });
});

test('ties join equal pitches only, marks come and go, the top of a chord is the melody', () => {
  const t = tune([part('A', 'D4 D4 E4')]);
  expect(show(toggleTies(t, ids('A1', 'A2')))).toBe('D4:1- D4:1 E4:1');
  expect(show(toggleTies(toggleTies(t, ids('A1')), ids('A1')))).toBe(show(t));
  const marked = toggleMark(t, ids('A1', 'A2'), 'staccato');
  expect(writtenNotes(marked).map(({ marks }) => marks?.length ?? 0)).toEqual([1, 1, 0]);
  expect(toggleMark(marked, ids('A1', 'A2'), 'staccato')).toEqual(t);
  const chord = toggleStop(t, 'A1', pitch('F#4'));
  expect(writtenNotes(chord)[0]).toMatchObject({ pitch: pitch('F#4'), stops: [pitch('D4')] });
  expect(toggleStop(chord, 'A1', pitch('F#4'))).toEqual(t);
});

describe('whatever is done, the document stays one that is kept', () => {
  const isKept = (t: Tune) => {
    for (const { pitch: p, stops = [], graceNotes = [] } of writtenNotes(t))
      for (const { alter, octave } of [p, ...stops, ...graceNotes])
        expect(Math.abs(alter) <= 2 && octave >= -1 && octave <= 9).toBe(true);
    for (const key of [
      t.key,
      ...t.parts.flatMap(({ events }) => events.flatMap((e) => (e.kind === 'bar' && e.key ? [e.key] : []))),
    ])
      expect(Math.abs(key.alter)).toBeLessThanOrEqual(1);
  };

  test('octaves end where they are no longer written', () => {
    let t = tune([part('A', 'D4 E5')]);
    for (let k = 0; k < 12; k++) t = transposeByOctaves(t, ids('A1', 'A2'), 1);
    isKept(t);
    for (let k = 0; k < 24; k++) t = transposeBySteps(t, ids('A1'), -7);
    isKept(t);
  });

  test('far keys are spelled so that they can be written, and sound as they should', () => {
    const t = setKeyFrom(tune([part('A', 'F##4:8 | Bbb4:8')]), 'Ab2', { letter: 'C', alter: -1, mode: 'major' });
    for (const letter of ['C', 'D', 'E', 'F', 'G', 'A', 'B'] as const)
      for (const alter of [-1, 0, 1]) {
        const moved = transposeToKey(t, { letter, alter });
        isKept(moved);
        const [a, b] = writtenNotes(moved).map(({ pitch: p }, i) => midiOf(p) - midiOf(writtenNotes(t)[i]!.pitch));
        expect(a).toBe(b);
      }
  });

  test('a bar that brings another meter or key stays when its notes go, and is not drawn over', () => {
    const t = setKeyFrom(tune([part('A', 'D4:9 | E4:8 | F#4:8')]), 'Ab2', { letter: 'G', alter: 0, mode: 'major' });
    const bare = removeEvents(t, ids('A2'));
    expect(
      writtenBars(bare)
        .get('A')!
        .map(({ key }) => key.letter),
    ).toEqual(['D', 'G', 'G']);
    expect(writtenBars(rebar(t, 'Ab1')).get('A')!.at(-1)!.key.letter).toBe('G');
  });

  test('a part behind one that is not played comes last; a form has an end', () => {
    const t = { ...tune([part('A', 'D4:8'), part('B', 'E4:8')]), form: ['A', 'A'] };
    expect(addPart(t, 'B').tune.form).toEqual(['A', 'A', 'C']);
    const many = { ...t, form: Array.from({ length: 100 }, (_, i) => (i % 2 === 0 ? 'A' : 'B')) };
    expect(setPlays(many, 'A', 64).form).toHaveLength(1000);
  });
});

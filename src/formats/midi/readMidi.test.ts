import { type MidiEvent, writeMidi as writeMidiBytes } from 'midi-file';
import { formatFraction, fraction } from '#core/base';
import { midiOf, pitchName } from '#core/pitch';
import { reportTune } from '#core/report';
import { type Tune, unroll, writtenNotes } from '#core/tune';
import { inventedTune } from '../../core/testing/books';
import { part, seeded, tune } from '../../core/testing/tunes';
import { midiBytes } from './midiBytes';
import { quantise } from './quantise';
import { readMidi } from './readMidi';
import { TICKS_PER_QUARTER, writeMidi } from './writeMidi';

/** Every note as it is played: where, how long, how high; ties are one note. */
const played = (value: Tune) =>
  unroll(value).notes.map(
    ({ onset, duration, note }) => `${formatFraction(onset)} ${formatFraction(duration)} ${midiOf(note.pitch)}`,
  );

/** A file with one track of notes: `[onset, length, midi]` in quarters. */
function file(
  notes: readonly (readonly [number, number, number])[],
  head: readonly MidiEvent[] = [],
  channel = 0,
): Uint8Array {
  const timed = notes
    .flatMap(([onset, length, noteNumber]) => [
      {
        tick: Math.round(onset * 480),
        event: { deltaTime: 0, type: 'noteOn', channel, noteNumber, velocity: 80 } as MidiEvent,
        order: 1,
      },
      {
        tick: Math.round((onset + length) * 480),
        event: { deltaTime: 0, type: 'noteOff', channel, noteNumber, velocity: 0 } as MidiEvent,
        order: 0,
      },
    ])
    .sort((a, b) => a.tick - b.tick || a.order - b.order);
  let before = 0;
  const track = timed.map(({ tick, event }) => {
    const deltaTime = tick - before;
    before = tick;
    return { ...event, deltaTime };
  });
  const end: MidiEvent = { deltaTime: 0, meta: true, type: 'endOfTrack' };
  return Uint8Array.from(
    writeMidiBytes({ header: { format: 0, numTracks: 1, ticksPerBeat: 480 }, tracks: [[...head, ...track, end]] }),
  );
}

test('what was written is read back note for note, with its meter, key and tempo', () => {
  for (let seed = 1; seed <= 40; seed++) {
    const value = { ...inventedTune(seed), tempoBpm: 60 };
    const { tune: read, quantised } = readMidi(writeMidi(reportTune(value)));
    expect({ seed, played: played(read!.tune) }).toEqual({ seed, played: played(value) });
    expect(read!.tune.meter).toEqual(value.meter);
    expect(quantised!.worstMs).toBeLessThan(2);
    expect(read!.tune.title).toBe(value.title);
  }
});

test('pickups and the short bars that answer to them stand where they stood', () => {
  const value = tune([part('A', 'A4 | D5 F#5 A5 D5 B4 A4 F#4 D4 | E4:4 A4:3'), part('B', 'D5:8')], {
    form: ['A', 'A', 'B'],
  });
  const { tune: read } = readMidi(writeMidi(reportTune(value)));
  expect(played(read!.tune)).toEqual(played(value));
  const lengths = read!.tune.parts[0]!.events.reduce<number[]>((bars, event) => {
    if (event.kind === 'bar') return [...bars, 0];
    return [...bars.slice(0, -1), bars[bars.length - 1]! + (event.duration.n * 8) / event.duration.d];
  }, []);
  expect(lengths).toEqual([1, 8, 7, 1, 8, 7, 8]);
});

test('eight bars that come again are one part played twice', () => {
  for (let seed = 1; seed <= 20; seed++) {
    const value = inventedTune(seed);
    const { tune: read } = readMidi(writeMidi(reportTune(value)));
    expect([seed, read!.tune.form]).toEqual([seed, value.form]);
    expect(read!.tune.parts.map(({ events }) => events.filter(({ kind }) => kind === 'bar').length)).toEqual(
      value.parts.map(() => 8),
    );
  }
});

test('played unevenly, onsets fall on the nearest place and the way there is told', () => {
  const random = seeded(4);
  const even = Array.from({ length: 32 }, (_, i) => [i / 2, 0.4, 62 + (i % 5)] as const);
  const uneven = even.map(
    ([onset, length, midi]) => [Math.max(0, onset + (random() - 0.5) * 0.08), length, midi] as const,
  );
  const { tune: read, quantised } = readMidi(file(uneven));
  expect(played(read!.tune)).toEqual(
    even.map(([onset, , midi]) => `${formatFraction(fraction(onset * 2, 8))} 1/8 ${midi}`),
  );
  expect(quantised!.grid.shortest).toBe(8);
  expect(quantised!.meanMs).toBeGreaterThan(1);
  expect(quantised!.worstMs).toBeLessThan(0.04 * 500 + 2);
});

test('thirds of a beat are triplets, full ones and marked as such', () => {
  const notes = [0, 1 / 3, 2 / 3, 1, 1.5, 2, 3].map((onset, i) => [onset, i < 3 ? 0.3 : 0.45, 62 + i] as const);
  const { tune: read } = readMidi(file([...notes.slice(0, 6), [3, 1, 70]]));
  const [first, second, third, fourth] = writtenNotes(read!.tune);
  expect([first, second, third].map((note) => note!.tuplet)).toEqual([
    { notes: 3, inTimeOf: 2, first: true },
    { notes: 3, inTimeOf: 2 },
    { notes: 3, inTimeOf: 2 },
  ]);
  expect(first!.duration).toEqual(fraction(1, 12));
  expect(fourth!.tuplet).toBeUndefined();
});

test('without triplets the straight grid is kept to', () => {
  const played3 = [0, 1 / 3, 2 / 3].map((onset) => ({ onset, end: onset + 0.3, midi: 60 }));
  const { notes } = quantise(played3, { shortest: 16, triplets: false });
  expect(notes.map(({ onset }) => formatFraction(onset))).toEqual(['0', '1/16', '3/16']);
});

test('a note over the bar line is tied, a length that no note has is written as two, a long gap is a rest', () => {
  const { tune: read } = readMidi(
    file([
      [0, 2.5, 62],
      [3, 2, 64],
      [6.5, 0.5, 66],
    ]),
  );
  expect(
    read!.tune.parts[0]!.events.map((event) =>
      event.kind === 'bar'
        ? '|'
        : `${event.kind[0]}${formatFraction(event.duration)}${event.kind === 'note' && event.tie ? '-' : ''}`,
    ),
  ).toEqual(['|', 'n1/2-', 'n1/8', 'r1/8', 'n1/4-', '|', 'n1/4', 'r3/8', 'n1/8', 'r1/4']);
});

test('of notes that begin together the highest is the melody', () => {
  const { tune: read } = readMidi(
    file([
      [0, 4, 62],
      [0, 4, 69],
      [0, 4, 66],
    ]),
  );
  const [note] = writtenNotes(read!.tune);
  expect([note!.pitch, ...note!.stops!].map(pitchName)).toEqual(['A4', 'F#4', 'D4']);
});

test('a key that is not named is guessed from the notes and the last of them, and pitches are spelled in it', () => {
  const scale = [62, 64, 66, 67, 69, 71, 73, 74].map((midi, i) => [i, 1, midi] as const);
  const { tune: read } = readMidi(file([...scale, [8, 4, 62]]));
  expect(read!.tune.key).toEqual({ letter: 'D', alter: 0, mode: 'major' });
  expect(
    writtenNotes(read!.tune)
      .slice(0, 8)
      .map(({ pitch }) => pitchName(pitch)),
  ).toEqual(['D4', 'E4', 'F#4', 'G4', 'A4', 'B4', 'C#5', 'D5']);
  const flat = [58, 60, 62, 63, 65, 67, 69, 70, 66].map((midi, i) => [i, 1, midi] as const);
  const { tune: inFlats } = readMidi(file([...flat, [9, 4, 58]]));
  expect(inFlats!.tune.key).toEqual({ letter: 'B', alter: -1, mode: 'major' });
  expect(pitchName(writtenNotes(inFlats!.tune)[8]!.pitch)).toBe('Gb4');
});

test('voices are told, the melody is chosen by its name or height, and another can be asked for', () => {
  const value = tune([part('A', 'D5:4 A4:4')], { tempoBpm: 60 });
  const withDrone: Tune = {
    ...value,
    parts: [
      {
        ...value.parts[0]!,
        events: value.parts[0]!.events.map((event) =>
          event.kind === 'note' ? { ...event, drone: 'lower' as const } : event,
        ),
      },
    ],
  };
  const bytes = writeMidi(reportTune(withDrone));
  const { voices, tune: read } = readMidi(bytes);
  expect(voices.map(({ name, notes }) => [name, notes])).toEqual([
    ['Melody', 2],
    ['Second string', 2],
  ]);
  expect(pitchName(writtenNotes(read!.tune)[0]!.pitch)).toBe('D5');
  expect(pitchName(writtenNotes(readMidi(bytes, { voice: voices[1]!.id }).tune!.tune)[0]!.pitch)).toBe('D4');
});

test('drums are no melody, and what is no MIDI file, cut off or empty is said to be so', () => {
  expect(readMidi(file([[0, 1, 38]], [], 9)).messages[0]!.matter).toEqual({ what: 'no-midi-notes' });
  const good = file([[0, 1, 60]]);
  for (const bytes of [
    new Uint8Array(0),
    good.slice(0, 10),
    Uint8Array.from([77, 84, 104, 100, 0, 0, 0, 6, 0, 0]),
    Uint8Array.from('MThd nonsense and more', (char) => char.charCodeAt(0)),
  ])
    expect(readMidi(bytes).tune).toBeNull();
});

test('a damaged time, and a gap that no tune has, are told at once and filled with nothing', () => {
  const far = file([
    [0, 1, 60],
    [90_000, 1, 62],
  ]);
  const { matter } = readMidi(far).messages[0]!;
  expect(matter).toEqual({ what: 'midi-too-much', found: expect.closeTo(22_500, -1) as number });
  const good = [...file([[0, 1, 60]])];
  const noteOff = good.lastIndexOf(0x80);
  const damaged = [...good.slice(0, noteOff - 1), ...Array<number>(9).fill(0xff), 0x7f, ...good.slice(noteOff)];
  // The last byte of the track's length.
  damaged[String.fromCharCode(...damaged).lastIndexOf('MTrk') + 7]! += damaged.length - good.length;
  expect(readMidi(Uint8Array.from(damaged)).messages[0]!.matter).toEqual({ what: 'midi-damaged' });
});

test('ticks are fine enough for every length of the grid', () => {
  expect(TICKS_PER_QUARTER % 48).toBe(0);
});

test('a file written in pieces is what the package writes in one go, for tracks of any length', () => {
  const random = seeded(41);
  for (const count of [0, 1, 199, 200, 201, 1000]) {
    const events = Array.from({ length: count }, (_, i): MidiEvent => ({
      deltaTime: Math.floor(random() ** 4 * 100_000),
      type: i % 2 === 0 ? 'noteOn' : 'noteOff',
      channel: i % 3,
      noteNumber: Math.floor(random() * 128),
      velocity: Math.floor(random() * 128),
    }));
    const end: MidiEvent = { deltaTime: 0, meta: true, type: 'endOfTrack' };
    const file = {
      header: { format: 1 as const, numTracks: 3, ticksPerBeat: 960 },
      tracks: [[...events, end], [end], events.slice(0, 3)],
    };
    expect([...midiBytes(file)]).toEqual(writeMidiBytes(file));
  }
});

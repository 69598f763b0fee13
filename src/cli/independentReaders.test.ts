import { execFileSync } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { parseMidi } from 'midi-file';
import { parse } from 'musicxml-io';
import { module as engraverModule, toolkit } from 'verovio';
import { toNumber } from '#core/base';
import { midiOf } from '#core/pitch';
import { type NoteEvent, type Tune, unroll, writtenBars } from '#core/tune';
import { readAbc, writeAbc } from '#formats/abc';
import { writeMusicXml } from '#formats/musicxml';
import { inventedTune } from '../core/testing/books';
import { randomScore } from '../core/testing/scores';
import { cases, some } from '../core/testing/share';

/** Tunes as they are written out for other programs to play: no decorations, which each plays in its own way. */
const undecorated = (value: Tune): Tune => ({
  ...value,
  parts: value.parts.map((part) => ({
    ...part,
    events: part.events.map((event) => {
      if (event.kind !== 'note') return event;
      const { marks: _marks, graceNotes: _graces, ...rest } = event;
      return rest;
    }),
  })),
});

const demo = readdirSync('demo').flatMap((file) =>
  readAbc(readFileSync(`demo/${file}`, 'utf8')).tunes.map(({ tune }) => tune),
);
const book = [...some(demo), ...Array.from({ length: cases(30) }, (_, i) => inventedTune(i + 1))].map(undecorated);

type Sounding = readonly [onset: number, length: number, midi: number];

/** Notes of a MIDI file in whole notes, all tracks together, in order. */
function soundingNotes(bytes: Uint8Array): Sounding[] {
  const { header, tracks } = parseMidi(bytes);
  const wholes = (ticks: number) => ticks / header.ticksPerBeat! / 4;
  const notes: Sounding[] = [];
  for (const track of tracks) {
    const open = new Map<number, number>();
    let tick = 0;
    for (const event of track) {
      tick += event.deltaTime;
      if (event.type === 'noteOn' && event.velocity > 0) open.set(event.noteNumber, tick);
      else if (event.type === 'noteOn' || event.type === 'noteOff') {
        const begun = open.get(event.noteNumber);
        if (begun !== undefined) notes.push([wholes(begun), wholes(tick - begun), event.noteNumber]);
        open.delete(event.noteNumber);
      }
    }
  }
  return notes;
}

/** Places counted in 1/96 of a whole note: some programs spread a chord by a tick. */
const placeOf = (onset: number) => Math.floor(onset * 96 + 0.25);
const inOrder = (notes: readonly Sounding[]) => [...notes].sort((a, b) => placeOf(a[0]) - placeOf(b[0]) || a[2] - b[2]);
const placed = (notes: readonly Sounding[]) => notes.map(([onset, , midi]) => `${placeOf(onset)} ${midi}`);

/** What a plan sounds like as it is played, repeats and all. */
function expectedNotes(value: Tune): Sounding[] {
  return inOrder(
    unroll(value).notes.flatMap(({ onset, duration, note }) =>
      [note.pitch, ...(note.stops ?? [])].map((pitch): Sounding => [
        toNumber(onset),
        toNumber(duration),
        midiOf(pitch),
      ]),
    ),
  );
}

function expectSame(value: Tune, sounded: readonly Sounding[], lengthWithin: number): void {
  const heard = inOrder(sounded);
  const expected = expectedNotes(value);
  expect({ title: value.title, notes: placed(heard) }).toEqual({ title: value.title, notes: placed(expected) });
  for (const [i, [, length]] of heard.entries()) expect(Math.abs(length - expected[i]![1])).toBeLessThan(lengthWithin);
}

describe('ABC, played by a program of others', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'morrin-abc-'));
  const play = (value: Tune) => {
    const file = path.join(folder, 'tune.abc');
    // That program swings hornpipes by itself: the lengths stand as they are written where no dance is named.
    writeFileSync(file, writeAbc({ ...value, danceType: null }));
    execFileSync('/usr/bin/abc2midi', [file, '-o', path.join(folder, 'tune.mid'), '-NFNP', '-silent'], {
      stdio: 'ignore',
    });
    return soundingNotes(readFileSync(path.join(folder, 'tune.mid')));
  };

  test('sounds the same pitches at the same places for as long', () => {
    for (const value of book) {
      const hasChords = value.parts.some(({ events }) => events.some((event) => event.kind !== 'bar' && event.chord));
      // Chord symbols are played along by that program.
      if (!hasChords) expectSame(value, play(value), 0.02);
    }
  });
});

/** A tune as it stands on the page: written order, each written note by itself. */
function writtenOrder(value: Tune): { measures: { note: NoteEvent | null; duration: number }[][] } {
  const bars = writtenBars(value);
  return {
    measures: value.parts.flatMap(({ name }) =>
      bars
        .get(name)!
        .map(({ events }) =>
          events.map((event) => ({ note: event.kind === 'note' ? event : null, duration: toNumber(event.duration) })),
        ),
    ),
  };
}

describe('MusicXML, read by programs of others', () => {
  const scores = [...book, ...Array.from({ length: cases(60) }, (_, i) => randomScore(i + 1))];

  test('a reader of scores finds the same measures, pitches, lengths and slurs', () => {
    for (const value of scores) {
      const score = parse(writeMusicXml(value));
      let divisions = 1;
      const found = score.parts[0]!.measures!.map((measure) => {
        divisions = measure.attributes?.divisions ?? divisions;
        const notes = measure.entries.flatMap((entry) =>
          entry.type === 'note' && !entry.grace && !entry.chord ? [entry] : [],
        );
        return notes.map(({ pitch, duration }) => ({
          name: pitch ? `${pitch.step}${pitch.alter ?? 0}${pitch.octave}` : 'rest',
          length: duration / divisions / 4,
        }));
      });
      // Equal pitches one after another are counted together: a length that no note has is written as two, tied.
      const total = (bars: { name: string; length: number }[][]) =>
        bars.map((notes) => {
          const runs: { name: string; length: number }[] = [];
          for (const { name, length } of notes) {
            const last = runs[runs.length - 1];
            if (last?.name === name) last.length += length;
            else runs.push({ name, length });
          }
          return runs.map(({ name, length }) => `${name} ${length.toFixed(5)}`);
        });
      expect(total(found)).toEqual(
        total(
          writtenOrder(value).measures.map((events) =>
            events.map(({ note, duration }) => ({
              name: note ? topName(note) : 'rest',
              length: duration,
            })),
          ),
        ),
      );
      const slurs = score.parts[0]!.measures!.flatMap(({ entries }) =>
        entries.flatMap((entry) =>
          entry.type === 'note' ? (entry.notations ?? []).filter(({ type }) => type === 'slur') : [],
        ),
      );
      expect(slurs.length % 2).toBe(0);
    }
  });

  test('an engraver finds the same pitches at the same places for as long', async () => {
    const reader = await engraver();
    for (const value of book) {
      expect(reader.loadData(writeMusicXml(value))).toBeTruthy();
      const heard = soundingNotes(Uint8Array.from(Buffer.from(reader.renderToMIDI(), 'base64')));
      expectSame(value, heard, 0.01);
    }
  });
});

// It does not draw a scordatura, and says so.
beforeAll(() => {
  jest.spyOn(console, 'warn').mockImplementation(() => undefined);
});

/** The engraver is compiled code that says when it is there. */
async function engraver(): Promise<toolkit> {
  if (!engraverModule.calledRun)
    await new Promise<void>((resolve) => {
      engraverModule.onRuntimeInitialized = resolve;
    });
  return new toolkit();
}

/** The highest pitch of a note or chord, which notation writes first. */
function topName({ pitch, stops = [] }: NoteEvent): string {
  const { letter, alter, octave } = [pitch, ...stops].sort((a, b) => midiOf(b) - midiOf(a))[0]!;
  return `${letter}${alter}${octave}`;
}

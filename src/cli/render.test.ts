import { readFileSync } from 'node:fs';
import MIDIFile from 'midifile';
import { reportSchema } from '#contract/report';
import { midiOf } from '#core/pitch';
import { reportTune } from '#core/report';
import { LILTS } from '#core/tempo';
import { readAbc } from '#formats/abc';
import { writeMidi } from '#formats/midi';
import { run } from './run';

const HERON = 'demo/heron.abc';
const heron = readAbc(readFileSync(HERON, 'utf8')).tunes[0]!.tune;

/** The samples of a WAV file, read by its own header. */
function samplesOf(bytes: Uint8Array): { rate: number; samples: Int16Array } {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const word = (at: number) => String.fromCharCode(...bytes.subarray(at, at + 4));
  expect([word(0), word(8), word(12), word(36)]).toEqual(['RIFF', 'WAVE', 'fmt ', 'data']);
  expect([view.getUint16(20, true), view.getUint16(22, true), view.getUint16(34, true)]).toEqual([1, 1, 16]);
  const length = view.getUint32(40, true);
  expect(view.getUint32(4, true)).toBe(36 + length);
  const samples = new Int16Array(length / 2);
  for (let i = 0; i < samples.length; i++) samples[i] = view.getInt16(44 + 2 * i, true);
  return { rate: view.getUint32(24, true), samples };
}

const render = (...args: string[]) => run(['render', HERON, '--out', 'x.wav', ...args]);

test('render writes the bars that are asked for, the same on every run, as long as they last', () => {
  const [first, again] = [render('--from', '1', '--to', '2'), render('--from', '1', '--to', '2')];
  expect(first).toMatchObject({ exitCode: 0, outPath: 'x.wav', stdout: '' });
  expect(Buffer.from(first.bytes!).equals(Buffer.from(again.bytes!))).toBe(true);
  const { rate, samples } = samplesOf(first.bytes!);
  // Two bars of two half notes at 109, and a tail.
  expect(samples.length / rate).toBeCloseTo((4 * 60) / 109 + 1.5, 2);
  expect(samples.some((sample) => Math.abs(sample) > 2000)).toBe(true);
});

test('tempo and layers are heard: slower is longer, no layer at all is silence', () => {
  const lengthOf = (...args: string[]) => samplesOf(render('--from', '1', '--to', '1', ...args).bytes!).samples;
  expect(lengthOf('--tempo', '60').length - lengthOf('--tempo', '120').length).toBeCloseTo(44100, -1);
  const backing = lengthOf('--layers', 'click');
  const melody = lengthOf('--layers', 'melody,bowing');
  const energy = (samples: Int16Array) => samples.reduce((sum, sample) => sum + sample * sample, 0);
  expect(energy(backing)).toBeGreaterThan(0);
  expect(energy(melody)).toBeGreaterThan(3 * energy(backing));
});

test.each([
  [['render', HERON], 2, /--out: expected the name of a \.wav file/],
  [['render', HERON, '--out', 'x.mp3'], 2, /\.wav/],
  [['render', HERON, '--out', 'x.wav', '--layers', 'melody,trumpet'], 2, /melody,drones,bowing,.*got trumpet/],
  [['render', HERON, '--out', 'x.wav', '--from', '40'], 2, /from 0 to 32/],
  [['render', HERON, '--out', 'x.wav', '--lilt', 'lumpy'], 2, /straight or easy/],
  [['render', 'no-such.abc', '--out', 'x.wav'], 1, /cannot be read/],
  [['convert', HERON, '--to', 'midi'], 2, /--out: expected the name of a \.mid file/],
])('%p ends with %i', (args, exitCode, stderr) => {
  const outcome = run(args as string[]);
  expect(outcome.exitCode).toBe(exitCode);
  expect(outcome.stderr).toMatch(stderr as RegExp);
});

test.each(LILTS)('report --lilt $name says it and plays a beat in its time', ({ name }) => {
  const outcome = run(['report', HERON, '--lilt', name, '--json']);
  const report = reportSchema.parse(JSON.parse(outcome.stdout));
  expect(report.lilt).toBe(name);
  const bar = report.notes.filter(({ part, pass, bar: number }) => part === 'A' && pass === 1 && number === 1);
  expect(bar.reduce((sum, { durationSeconds }) => sum + durationSeconds, 0)).toBeCloseTo((2 * 60) / 109, 5);
});

test('a MIDI file read by another parser has the notes as they are played, at their times', () => {
  const { bytes } = run(['convert', HERON, '--to', 'midi', '--out', 'x.mid']);
  const { unrolled, timing } = reportTune(heron);
  const file = new MIDIFile(Uint8Array.from(bytes!).buffer);
  const ons = file.getMidiEvents().filter(({ subtype, channel }) => subtype === 0x9 && channel === 0);
  expect(ons.map(({ param1 }) => param1)).toEqual(unrolled.notes.map(({ note }) => midiOf(note.pitch)));
  for (const [i, { playTime }] of ons.entries()) expect(playTime / 1000).toBeCloseTo(timing.onsets[i]!, 2);
  expect(new Set(ons.map(({ param2 }) => param2)).size).toBeGreaterThan(2);
});

test('straight notes stand exactly on their ticks, and every note that begins ends', () => {
  const ticks = (bytes: Uint8Array) => {
    let tick = 0;
    const file = new MIDIFile(Uint8Array.from(bytes).buffer);
    return file.getTrackEvents(1).flatMap(({ delta, subtype, type, param1 }) => {
      tick += delta;
      return type === 8 ? [{ tick, subtype, param1 }] : [];
    });
  };
  const events = ticks(writeMidi(reportTune(heron)));
  expect(events.filter(({ subtype }) => subtype === 9).every(({ tick }) => tick % 480 === 0)).toBe(true);
  const sounding = new Set<number>();
  for (const { subtype, param1 } of events) {
    if (subtype === 9) {
      expect(sounding.has(param1)).toBe(false);
      sounding.add(param1);
    } else if (subtype === 8) sounding.delete(param1);
  }
  expect(sounding.size).toBe(0);
});

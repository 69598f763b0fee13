import { noteStates } from '#core/noteStates';
import { reportTune } from '#core/report';
import type { NoteEvent, Tune } from '#core/tune';
import { writtenNotes } from '#core/tune';
import { spokenNote } from '#words/note';
import { part, tune } from '../../core/testing/tunes';
import type { LineGeometry } from './geometry';
import { BEAT_DEPTH, LANES, roomLane } from './lanePaths';

function freely(line: string, own: Record<string, Partial<NoteEvent>>): Tune {
  const plain = part('A', line);
  return tune([
    {
      ...plain,
      events: plain.events.map((event) => (event.kind === 'note' ? { ...event, ...own[event.id] } : event)),
    },
  ]);
}

/** Notes at even distances of 100 px. */
function geometryOf(t: Tune): LineGeometry {
  const notes = writtenNotes(t).map(({ id }, i) => ({ id, x: 100 * (i + 1) })) as unknown as LineGeometry['notes'];
  const width = 100 * (notes.length + 1) + 6;
  return { width, endX: width, notes, rests: [] } as unknown as LineGeometry;
}

test('beats are long ticks and offbeats short ones, between the heads where time has them', () => {
  const t = freely('D4:4 E4:2 F#4:2', {});
  const { beats, offbeats } = roomLane(geometryOf(t), noteStates(reportTune(t), {}));
  const y = LANES.room.height - BEAT_DEPTH + 1;
  const ticks = (xs: readonly number[], depth: number) => xs.map((x) => `M${x},${y}L${x},${y + depth}`).join('');
  expect(beats).toBe(ticks([100, 200], 5));
  expect(offbeats).toBe(ticks([150, 300], 2.5));
});

test('a tied head bears no beat of its own: they stand on the way to the next that is struck', () => {
  const t = freely('D4:4 D4:2 F#4:2', { A1: { tie: true } });
  const { beats } = roomLane(geometryOf(t), noteStates(reportTune(t), {}));
  const [, second] = beats
    .split('M')
    .slice(1)
    .map((tick) => Number(tick.split(',')[0]));
  expect(second).toBeCloseTo(100 + (200 * 4) / 6, 0);
});

test('what is played freely is said of the note', () => {
  const t = freely('D4:4 E4:4', { A1: { hold: 1.5, breath: 0.125 }, A2: { pace: 0.8 } });
  const states = noteStates(reportTune(t), {});
  const [first, second] = writtenNotes(t).map((note) => spokenNote(note, states.get(note.id), 1));
  expect(first).toMatch(/held 1.5 times its length, then a breath/);
  expect(second).toMatch(/pace 80 percent/);
});

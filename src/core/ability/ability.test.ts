import { reportTune } from '#core/report';
import { part, tune } from '../testing/tunes';
import { cleanChance, cleanTempo, LAPSE } from './cleanChance';
import { judgedIn } from './judgedIn';
import { marginsAt, marginsOf } from './margins';

const report = reportTune(tune([part('A', 'D4 A4 D5 F#5 E5 C#5 A4 D4')], { form: ['A', 'A'] }), { bpm: 90 });

test('the margin of a kind is that of its tightest event, as the dance check has it', () => {
  const last = report.unrolled.notes.length - 1;
  const margins = marginsOf(report, 0, last);
  const { headroom } = report.figures.check;
  expect(Math.min(...Object.values(margins))).toBeCloseTo(Math.log(Math.min(...headroom.map((own) => own ?? 9))), 9);
  // The way to the first note is no part of what is played by itself.
  expect(marginsOf(report, 1, 1)).not.toHaveProperty('crossing');
});

test('straight time: margins at another tempo are those that the check finds there', () => {
  const last = report.unrolled.notes.length - 1;
  const faster = reportTune(report.tune, { ...report.settings, bpm: 120 });
  const reckoned = marginsAt(marginsOf(report, 0, last), 90, 120);
  expect(reckoned.stroke).toBeCloseTo(marginsOf(faster, 0, last).stroke!, 9);
});

test('with much room only lapses spoil it, with none each kind halves it', () => {
  expect(cleanChance({ stroke: 5 }, {})).toBeCloseTo(1 - LAPSE, 9);
  expect(cleanChance({ stroke: 0, crossing: 0 }, {})).toBeCloseTo((1 - LAPSE) / 4, 9);
  expect(cleanChance({ stroke: -0.2 }, { stroke: 0.2 })).toBeCloseTo((1 - LAPSE) / 2, 9);
});

test('the tempo of a chance has that chance', () => {
  const margins = { stroke: 0.1, crossing: -0.05 };
  const bpm = cleanTempo(margins, 100, {}, 0.8)!;
  expect(cleanChance(marginsAt(margins, 100, bpm), {})).toBeCloseTo(0.8, 6);
  expect(cleanTempo(margins, 100, {}, 0.99)).toBeNull();
});

test('an attempt is judged by the room its stretch leaves at its tempo now, less the longer ago', () => {
  const [first, last] = [report.unrolled.notes[1]!, report.unrolled.notes[4]!];
  const span = { from: first.note.id, to: last.note.id };
  const now = Date.parse('2026-03-02T12:00:00Z');
  const at = (days: number) => now - days * 86_400_000;
  const [fresh, old, counted] = judgedIn(
    report,
    [
      { at: at(0), span, bpm: 120, clean: true },
      { at: at(60), span, bpm: 90, clean: false },
      { at: at(0), span: { from: 'gone', to: 'gone' }, bpm: 90, clean: true, margins: { stroke: 0.3 } },
    ],
    now,
  );
  expect(fresh!.margins).toEqual(marginsAt(marginsOf(report, 1, 4), 90, 120));
  expect([fresh!.weight, old!.weight]).toEqual([1, expect.closeTo(1 / Math.E, 9)]);
  expect(counted!.margins).toEqual({ stroke: 0.3 });
  expect(judgedIn(report, [{ at: now, span: { from: 'gone', to: 'gone' }, bpm: 90, clean: true }], now)).toEqual([]);
});

import { reportTune } from '#core/report';
import { part, tune } from '../testing/tunes';
import { cleanChance, cleanTempo, LAPSE, marginsAt, marginsOf } from './index';

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

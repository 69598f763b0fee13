// A take of a minute heard, and the answer after its last block; against its own length and the fiddle that played it.
import { reportTune } from '../../src/core/report/index.ts';
import { simulate } from '../../src/core/simulatedPlayer/index.ts';
import { checkTake, expectedOf, Listener } from '../../src/core/take/index.ts';
import { takeTunes } from './listening.mjs';

const SECONDS = 60;
const RATE = 44100;
const BLOCK = 2048;
/** A bite of two bars, over and over: what the ladder answers. */
const LOOP_NOTES = 16;
const TIMES = 7;

const median = (measure) => Array.from({ length: TIMES }, measure).toSorted((a, b) => a - b)[TIMES >> 1];

function heard(report, span, samples) {
  const listener = new Listener(expectedOf(report, { span }), { sampleRate: RATE });
  const begun = performance.now();
  for (let at = 0; at < samples.length; at += BLOCK) listener.push(samples.subarray(at, at + BLOCK));
  const followed = performance.now();
  checkTake(listener, report.settings.bpm);
  return { whole: performance.now() - begun, answer: performance.now() - followed };
}

export function benchTake() {
  const tune = takeTunes().find(({ danceType }) => danceType === 'hornpipe');
  const slow = reportTune(tune);
  const report = reportTune(tune, { bpm: (slow.settings.bpm * slow.timing.total) / (SECONDS - 2) });
  const whole = { from: 0, to: report.unrolled.notes.length };
  const played = performance.now();
  const { samples } = simulate(report, { player: 'plain', room: 0.2, signalToNoise: 30 });
  const playing = performance.now() - played;
  const minute = median(() => heard(report, whole, samples).whole);
  const span = { from: 0, to: LOOP_NOTES };
  const loop = simulate(report, { player: 'plain', span }).samples;
  const answer = median(() => heard(report, span, loop).answer);
  const seconds = samples.length / RATE;
  const row = (what, against, ratio, bar, ms, holds) => ({ what, against, ratio, bar, ms, holds });
  return [
    row(
      'take of a minute, heard whole',
      'its own length',
      `${(minute / 1000 / seconds).toFixed(3)}`,
      'at most 4 s in 60',
      `${Math.round(minute)} against ${Math.round(1000 * seconds)}; the fiddle that played it took ${Math.round(playing)}`,
      minute / 1000 / seconds <= 4 / 60,
    ),
    row(
      'answer of the ladder after the last block of a loop',
      '300 ms',
      `${(answer / 300).toFixed(2)}`,
      'at most 1',
      `${Math.round(answer)}`,
      answer <= 300,
    ),
  ];
}

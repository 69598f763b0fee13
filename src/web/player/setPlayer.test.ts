import { reportTune } from '#core/report';
import { part, tune } from '../../core/testing/tunes';
import type { Engine } from './engine';
import { readListenSettings } from './listenSettings';
import type { FromFiddle } from './programme';
import { type Leg, SetPlayer } from './setPlayer';
import { Transport } from './transport';

/** A second of eight notes at 120 half notes a minute. */
const report = reportTune(tune([part('A', 'D4 E4 F#4 G4 A4 B4 C#5 D5')]), { bpm: 120 });
const LEGS: readonly Leg[] = [
  { tune: 0, time: 1, report },
  { tune: 0, time: 2, report },
  { tune: 1, time: 1, report },
];
const SETTINGS = { ...readListenSettings(), countIn: 1 };

/** A clock that goes on when it is told to; late: it answers when the page has gone on already. */
function clock({ isLate = false } = {}) {
  const transport = new Transport();
  let told: (report: FromFiddle) => void = () => undefined;
  const engine: Engine = {
    isSilent: true,
    tell: (message) => {
      transport.tell(message);
      const report = transport.report(0);
      if (isLate) setTimeout(() => told(report));
      else told(report);
    },
    heard: () => 0,
    close: () => undefined,
  };
  return {
    start: (onReport: typeof told) => {
      told = onReport;
      return Promise.resolve(engine);
    },
    pass: (seconds: number) => {
      transport.pass(seconds);
      told(transport.report(0));
    },
  };
}
const whereIn = (player: SetPlayer) => {
  const { status, leg } = player.snapshot();
  return [status, leg && [leg.tune, leg.time]];
};

test('a set is counted in once, played tune by tune and time by time, and ends', async () => {
  const { start, pass } = clock();
  const player = new SetPlayer(start);
  await player.play(LEGS, 0, SETTINGS);
  expect(whereIn(player)).toEqual(['playing', [0, 1]]);
  pass(1.5);
  expect(whereIn(player)).toEqual(['playing', [0, 1]]);
  pass(1);
  expect(whereIn(player)).toEqual(['playing', [0, 2]]);
  pass(1);
  expect(whereIn(player)).toEqual(['playing', [1, 1]]);
  pass(1);
  expect(whereIn(player)).toEqual(['idle', null]);
});

test('an audio thread tells late that nothing plays yet: that does not end it', async () => {
  const { start, pass } = clock({ isLate: true });
  const player = new SetPlayer(start);
  await player.play(LEGS, 0, SETTINGS);
  await new Promise((resolve) => setTimeout(resolve, 5));
  pass(0.1);
  expect(whereIn(player)).toEqual(['playing', [0, 1]]);
});

test('it begins at the tune that is asked for, and stops where it is told to', async () => {
  const { start, pass } = clock();
  const player = new SetPlayer(start);
  await player.play(LEGS, 2, SETTINGS);
  expect(whereIn(player)).toEqual(['playing', [1, 1]]);
  player.stop();
  pass(0.5);
  expect(whereIn(player)).toEqual(['idle', null]);
  await player.play(LEGS, 3, SETTINGS);
  expect(whereIn(player)).toEqual(['idle', null]);
});

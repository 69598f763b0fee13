import { setLinks } from '#core/bowing';
import { reportTune } from '#core/report';
import { part, tune } from '../../core/testing/tunes';
import type { ListenSettings } from './listenSettings';
import { Player } from './player';
import type { FromFiddle, ToFiddle } from './programme';
import { Transport } from './transport';

/** A device whose time passes when the test says so. */
const device = {
  transport: new Transport(),
  clock: 0,
  tell: (_report: FromFiddle) => undefined as void,
  plans: [] as ToFiddle[],
};

jest.mock('./engine', () => ({
  startEngine: (onReport: (report: FromFiddle) => void) => {
    device.tell = onReport;
    return Promise.resolve({
      isSilent: true,
      tell: (message: ToFiddle) => {
        device.plans.push(message);
        device.transport.tell(message);
        onReport(device.transport.report(device.clock));
      },
      heard: () => device.clock,
      close: () => undefined,
    });
  },
}));

function pass(seconds: number): void {
  for (let i = 0; i < Math.round(seconds * 50); i++) {
    device.transport.pass(0.02);
    device.clock += 0.02;
    device.tell(device.transport.report(device.clock));
  }
}

const SETTINGS: ListenSettings = {
  layers: ['melody', 'bowing'],
  countIn: 0,
  loop: false,
  answer: false,
  climb: 0,
  compare: null,
  balance: { melody: 1, second: 1, backing: 1, click: 1, tone: 1 },
};
/** At 120 half notes a minute an eighth lasts an eighth of a second, the bar a second. */
const BPM = 120;
const t = tune([part('A', 'D4 E4 F#4 G4 A4 B4 C#5 D5')], { form: ['A', 'A'] });
const report = reportTune(t, { bpm: BPM });

let player: Player;
beforeEach(() => {
  Object.assign(device, { transport: new Transport(), clock: 0, plans: [] });
  player = new Player();
});
afterEach(() => player.close());

test('it plays to the end and tells where it is', async () => {
  await player.play(report, SETTINGS, null);
  pass(0.3);
  expect(player.snapshot()).toMatchObject({ status: 'playing', bpm: BPM, isSilent: true });
  expect(player.where()).toMatchObject({ index: 2, countdown: null });
  expect(player.where()!.share).toBeCloseTo(0.4, 1);
  pass(1);
  expect(player.where()).toMatchObject({ index: 10 });
  pass(1);
  await new Promise((resolve) => setTimeout(resolve, 5));
  expect(player.snapshot().status).toBe('idle');
  expect(player.where()).toBeNull();
});

test('while it is counted in there is no note yet', async () => {
  await player.play(report, { ...SETTINGS, countIn: 1 }, null);
  pass(0.5);
  expect(player.where()).toMatchObject({ index: null, countdown: expect.closeTo(0.5, 1) as number });
  pass(0.6);
  expect(player.where()).toMatchObject({ index: 0, countdown: null });
});

test('a loop of a span comes round, and an answer is waited for', async () => {
  await player.play(report, { ...SETTINGS, loop: true, answer: true }, { from: 2, to: 6 });
  pass(0.2);
  expect(player.where()!.index).toBe(3);
  pass(0.5);
  expect(player.where()).toMatchObject({ index: 5, isAnswer: true });
  pass(0.4);
  expect(player.snapshot().rounds).toBe(1);
  expect(player.where()).toMatchObject({ index: 2, isAnswer: false });
});

test('an edit is heard from where it is, the span keeps its notes', async () => {
  await player.play(report, { ...SETTINGS, loop: true }, { from: 2, to: 6 });
  pass(0.2);
  const slurred = reportTune(setLinks(t, new Map([['A4', 'slur']])), { bpm: BPM });
  player.update(slurred, { ...SETTINGS, loop: true });
  expect(device.plans.at(-1)).toMatchObject({ kind: 'play', at: null });
  pass(0.02);
  expect(player.where()!.index).toBe(3);
  expect(player.sounds).not.toBe(report);
  pass(0.4);
  expect(player.snapshot().rounds).toBe(1);
});

test('the same again is not told again, and nothing is told while nothing is played', async () => {
  player.update(report, SETTINGS);
  expect(device.plans).toEqual([]);
  await player.play(report, SETTINGS, null);
  const told = device.plans.length;
  player.update(report, SETTINGS);
  expect(device.plans.length).toBe(told);
});

test('from the practice tempo it climbs with each round up to the goal, by turns with another way only every second', async () => {
  await player.play(report, { ...SETTINGS, loop: true, climb: 10 }, { from: 0, to: 4 }, 80);
  expect(player.snapshot().bpm).toBeCloseTo(96, 6);
  pass(0.7);
  expect(player.snapshot().bpm).toBeCloseTo(105.6, 6);
  pass(3);
  expect(player.snapshot().bpm).toBe(BPM);
  player.stop();
  await player.play(report, { ...SETTINGS, loop: true, climb: 5, compare: 'lilt:dotted' }, { from: 0, to: 4 }, 80);
  pass(0.7);
  expect(player.snapshot()).toMatchObject({ bpm: 96, isCompared: true });
  pass(0.7);
  expect(player.snapshot().isCompared).toBe(false);
  expect(player.snapshot().bpm).toBeCloseTo(100.8, 6);
});

test('slowing down changes what is heard and not the plan; at once while it plays', async () => {
  await player.play(report, SETTINGS, null, 50);
  expect(player.snapshot().bpm).toBe(60);
  player.update(report, SETTINGS, 75);
  expect(player.snapshot().bpm).toBe(90);
  expect(report.settings.bpm).toBe(BPM);
});

describe('a loop that flips', () => {
  const odd = { from: 0, to: 3 };
  const strokes = () => {
    const last = device.plans.findLast((told) => told.kind === 'play' || told.kind === 'next');
    return last && 'programme' in last ? last.programme.plan.strokes : [];
  };

  test('lifts the bow on the way back, and begins on the same bow each time', async () => {
    await player.play(report, { ...SETTINGS, loop: true }, odd);
    const flipping = strokes();
    await player.play(report, { ...SETTINGS, loop: true }, { from: 0, to: 4 });
    const round = strokes();
    // The third note lasts as long in both, but for the lift.
    expect(flipping[2]!.to).toBeLessThan(round[2]!.to - 0.02);
    pass(2);
    expect(player.snapshot()).toMatchObject({ isTurned: false });
  });

  test('goes both ways in turn where passages are learned so', async () => {
    const both = reportTune(t, { bpm: BPM, schools: { ...report.settings.schools, learning: 'both-directions' } });
    await player.play(both, { ...SETTINGS, loop: true }, odd);
    // What comes next is ready: the other way round.
    const turned = strokes();
    expect(turned.map(({ sign }) => sign)).toEqual([-1, 1, -1]);
    pass(0.45);
    expect(player.snapshot().isTurned).toBe(true);
    pass(0.4);
    expect(player.snapshot().isTurned).toBe(false);
  });
});

test('a jump goes to a note of the whole tune; stopped it is idle at once', async () => {
  await player.play(report, SETTINGS, null);
  pass(0.2);
  player.jump(12);
  await Promise.resolve();
  await Promise.resolve();
  pass(0.1);
  expect(player.where()!.index).toBe(12);
  player.stop();
  expect(player.snapshot().status).toBe('idle');
});

test('a tune without notes is not played, and one that loses all of them falls silent', async () => {
  const empty = reportTune(tune([part('A', 'z:8')]));
  await player.play(empty, SETTINGS, null);
  expect(player.snapshot().status).toBe('idle');
  await player.play(report, SETTINGS, null);
  player.update(empty, SETTINGS);
  expect(player.snapshot().status).toBe('idle');
});

test('another plan is heard by turns with this one, round by round, and only as long as it plays', async () => {
  const other = reportTune(tune([part('A', 'D4 E4 F#4 G4 A4:2 A4:2')], { form: ['A', 'A'] }), { bpm: BPM });
  await player.play(other, { ...SETTINGS, loop: true }, { from: 0, to: 4 }, 100, report);
  const heard: (boolean | undefined)[] = [];
  for (let round = 0; round < 4; round++) {
    pass(0.25);
    heard.push(player.sounds?.tune === report.tune);
    pass(0.25);
  }
  expect(heard).toEqual([false, true, false, true]);
  player.stop();
  await player.play(other, { ...SETTINGS, loop: true }, { from: 0, to: 4 });
  pass(0.75);
  expect(player.snapshot().isCompared).toBe(false);
});

test('it plays at the reference pitch, and holds as long as the player must mean them', async () => {
  const air = tune([part('A', 'A4:2 B4:2 c#5:2 A4:2')]);
  const events = air.parts[0]!.events.map((event) =>
    event.kind === 'note' && event.id === 'A1' ? { ...event, hold: 2 } : event,
  );
  const held = reportTune({ ...air, parts: [{ ...air.parts[0]!, events }] }, { bpm: BPM });
  await player.play(held, { ...SETTINGS, a4: 415, own: { hold: 0.8, silence: 1 } }, null);
  const { plan, knots } = device.plans.find((message) => message.kind === 'play')!.programme;
  expect(plan.openHertz[2]).toBeCloseTo(415, 9);
  const [first, second, third] = knots.seconds as [number, number, number];
  expect((second - first) / (third - second)).toBeCloseTo(2.5, 6);
});

import { FREE_HAND, type Hand } from '#core/fingering';
import { defaultSettings, reportTune } from '#core/report';
import { occurrencesOf, type Tune, writtenNotes } from '#core/tune';
import { barSumFaults } from '#core/tune';
import { parseTuning } from '#core/tuning';
import { inventedTune } from '../testing/books';
import { part, tune } from '../testing/tunes';
import { excerpt } from './smallTune';
import { DRILL_KINDS, type TuneDrill } from './tuneDrill';
import { chosenDrill, drillsFor } from './tuneDrills';

const REEL = tune([part('A', 'D4 (F#4 A4) F#4 D4 A4 (F#4 A4) | B4 (A4 F#4) A4 D5 (A3 E5) E4')], { form: ['A', 'A'] });
const GROUNDS: readonly Partial<Tune>[] = [
  {},
  { key: { letter: 'B', alter: -1, mode: 'major' } },
  { tuning: parseTuning('A3 E4 A4 E5')!, key: { letter: 'A', alter: 0, mode: 'major' } },
  { meter: { num: 6, den: 8 }, danceType: 'jig', key: { letter: 'G', alter: 0, mode: 'major' } },
];
const JIG = 'D4 E4 F#4 G4 A4 B4 | A4 G4 F#4 E4 D4 D4';
const tunes = GROUNDS.map((more) => ({
  ...(more.meter ? tune([part('A', JIG)], { form: ['A', 'A'] }) : REEL),
  ...more,
}));

describe.each(DRILL_KINDS)('the drill of %s', (kind) => {
  test('is there in every key and tuning when it is asked for, and every stage is a tune that can be played', () => {
    let made = 0;
    for (const own of tunes) {
      const drill = chosenDrill(reportTune(own), kind);
      // A barre wants two strings a fifth apart, a doubling a stop at the unison: not every tuning has them.
      if (!drill) continue;
      made += 1;
      expect(drill.kind).toBe(kind);
      for (const { tune: stage, bpm, clean, minutes } of drill.stages) {
        const report = reportTune(stage);
        expect(writtenNotes(stage).length).toBeGreaterThan(0);
        expect(barSumFaults(stage).filter((fault) => fault.kind !== 'join')).toEqual([]);
        expect(bpm).toBeCloseTo(report.settings.bpm, 6);
        expect([...report.fingers.values()].every(({ reachable, pinMisfits }) => reachable && !pinMisfits)).toBe(true);
        expect(clean).toBeGreaterThan(0);
        expect(minutes).toBeGreaterThan(0);
      }
    }
    expect(made).toBeGreaterThanOrEqual(2);
  });
});

/** Stages whose own bow is the point: begun on one bow, or set anew. */
const SET_ANEW = new Set(['from-up-bow', 'swell-up', 'in-the-tune']);

test('drills come round: looped, each time is bowed as the first', () => {
  for (const own of tunes)
    for (const kind of DRILL_KINDS) {
      if (kind === 'pattern') continue;
      for (const { code, tune: stage } of chosenDrill(reportTune(own), kind)?.stages ?? [])
        if (!SET_ANEW.has(code))
          expect([kind, code, reportTune(stage).figures.ledger.comesRoundAgain]).toEqual([kind, code, true]);
    }
});

test('a pattern that flips is drilled from both starts', () => {
  const jig = tunes[3]!;
  const { stages } = chosenDrill(reportTune(jig), 'jig-accent')!;
  const starts = stages.filter(({ code }) => code.startsWith('stroke-a-note')).map(({ tune: { start } }) => start);
  expect(starts).toEqual(['down', 'up']);
});

test('a banned finger is in no stage that was written for it', () => {
  const hand: Hand = { ...FREE_HAND, bans: [{ finger: 4, place: null, reason: 'pain' }] };
  for (const own of tunes) {
    const report = reportTune(own, { ...defaultSettings(), hand });
    for (const kind of DRILL_KINDS)
      for (const { code, tune: stage } of chosenDrill(report, kind)?.stages ?? [])
        if (code !== 'in-the-tune')
          expect([kind, code, writtenNotes(stage).some(({ finger }) => finger === 4)]).toEqual([kind, code, false]);
  }
});

test('what asks for a drill stands in the tune, and a tune that asks for nothing gets nothing of it', () => {
  for (let seed = 1; seed <= 12; seed++) {
    const report = reportTune(inventedTune(seed));
    const drills: TuneDrill[] = drillsFor(report);
    for (const { because } of drills) {
      expect(because.by).not.toBe('chosen');
      if (because.note !== undefined) expect(occurrencesOf(report.unrolled).has(because.note)).toBe(true);
    }
  }
  const plain = drillsFor(reportTune(tune([part('A', 'A4 A4 A4 A4 A4 A4 A4 A4')], { form: ['A'] })));
  expect(plain.map(({ kind }) => kind)).not.toContain('turn-in-silence');
  expect(plain.map(({ kind }) => kind)).not.toContain('flick');
});

test('a turn in silence is about the two strings of the tightest crossing, and its stop shrinks', () => {
  const report = reportTune(tune([part('A', 'D4 A4 D4 A4 D4 A4 D4 A4')], { form: ['A', 'A'] }), { bpm: 200 });
  const drill = drillsFor(report).find(({ kind }) => kind === 'turn-in-silence')!;
  expect(drill.because).toMatchObject({ by: 'event', event: 'crossing' });
  const stops = drill.stages.filter(({ code }) => code.startsWith('stop')).map(({ tune: stage }) => stage);
  const rests = stops.map((stage) => stage.parts[0]!.events.find(({ kind }) => kind === 'rest'));
  const lengths = rests.map((rest) => (rest?.kind === 'rest' ? rest.duration.n / rest.duration.d : 0));
  expect(lengths).toEqual([...lengths].sort((a, b) => b - a));
  for (const stage of stops)
    expect(new Set(writtenNotes(stage).map(({ place }) => place))).toEqual(new Set(['D', 'A']));
});

test('no bump: on each side of a pair every finger comes down beside the bowed string, banned ones do not', () => {
  const hand: Hand = { ...FREE_HAND, bans: [{ finger: 3, place: null, reason: 'pain' }] };
  const { stages } = chosenDrill(reportTune(REEL, { ...defaultSettings(), hand }), 'no-bump')!;
  const alone = stages.filter(({ code }) => code !== 'in-the-tune');
  expect(alone).toHaveLength(6);
  for (const { tune: stage } of alone) {
    const notes = writtenNotes(stage);
    expect(new Set(notes.map(({ place }) => place)).size).toBe(1);
    const asked = notes.flatMap(({ chord }) => (chord === 'lift' ? [] : chord!));
    const silent = asked[0]!.slice(-1);
    expect(asked.slice(0, 3)).toEqual([1, 2, 4].map((finger) => `${finger} on ${silent}`));
    expect(silent).not.toBe(notes[0]!.place);
  }
});

test('an excerpt is bowed as in the tune, with rests in place of what is left out', () => {
  const report = reportTune(REEL);
  const own = excerpt(report, 3, 9, 'A stretch');
  const after = reportTune(own);
  expect(writtenNotes(own)).toHaveLength(7);
  expect(barSumFaults(own).filter((fault) => fault.kind !== 'join')).toEqual([]);
  expect(after.figures.bowed.slice(0, 7).map(({ bow }) => bow)).toEqual(
    report.figures.bowed.slice(3, 10).map(({ bow }) => bow),
  );
  expect(after.settings.bpm).toBe(report.settings.bpm);
});

test('a skipped string is drilled on the two strings around it, though the note is reached otherwise at another time', () => {
  // The last E is reached from G, over D and A; the first one from A.
  const own = tune([part('A', 'A4 A4 E5 E5 G3 G3 E5 E5')], { form: ['A', 'A'] });
  const drill = drillsFor(reportTune(own, { bpm: 200 })).find(({ kind }) => kind === 'skipped-string')!;
  const places = new Set(writtenNotes(drill.stages[0]!.tune).map(({ place }) => place));
  expect(places).toEqual(new Set(['G', 'E']));
});

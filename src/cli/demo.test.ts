import { readdirSync, readFileSync } from 'node:fs';
import { changeTuning } from '#core/crossTuning';
import { doublings, stoppedDoubles } from '#core/drones';
import { FREE_HAND, type Hand, searchFingering } from '#core/fingering';
import { instrumentWith } from '#core/instrument';
import { FULL_SIZE } from '#core/instrument';
import { ornamentFacts, ORNAMENTS } from '#core/ornaments';
import { midiOf } from '#core/pitch';
import { droneSceneOf, type Finding, mendTune, ornamentSceneOf, reportTune, wishedTempo } from '#core/report';
import { DEFAULT_SCHOOLS, type Schools } from '#core/schools';
import { DANCE_TYPES, PLACES, writtenNotes } from '#core/tune';
import { TUNINGS } from '#core/tuning';
import { readAbc, writeAbc } from '#formats/abc';
import { findingWords } from '#words/finding';
import { mendWords } from '#words/mend';
import { some } from '../core/testing/share';

const tunes = readdirSync('demo')
  .sort()
  .flatMap((file) => readAbc(readFileSync(`demo/${file}`, 'utf8')).tunes.map(({ tune }) => tune));

/** Every code that a finding can have: one left out here does not compile. */
const CODES: Readonly<Record<Finding['code'], true>> = {
  'part-flips': true,
  'tune-flips-again': true,
  'slur-skips-string': true,
  'crossing-too-fast': true,
  'stroke-too-fast': true,
  'hop-too-fast': true,
  'shift-too-fast': true,
  'retake-too-fast': true,
  'ornament-too-fast': true,
  'runs-out-of-hair': true,
  'bars-begin-up': true,
  'bowed-unlike': true,
  'window-left': true,
  jerk: true,
  'reverse-crossings': true,
  'one-plane': true,
  'skip-may-sound': true,
  'lock-contradicted': true,
  'out-of-reach': true,
  'stops-out-of-reach': true,
  'finger-misfits': true,
  'hand-forbids': true,
  'ornament-misfits': true,
  'drone-grates': true,
  'extended-fourth': true,
  'string-inferred': true,
  'bar-short': true,
  'bar-long': true,
  'join-does-not-add-up': true,
};
/** What no edit of bowing or bar lines mends. */
const OF_THE_HAND: readonly string[] = [
  'out-of-reach',
  'stops-out-of-reach',
  'finger-misfits',
  'hand-forbids',
  'extended-fourth',
];

/** For what only shows to a player who keeps something from the hand. */
const PAINED: Hand = { ...FREE_HAND, bans: [{ finger: 4, place: null, reason: 'pain' }] };

/** What only shows where crossings are liked one way, and well above the tempos of the dances. */
const HARD_PRESSED = 1.6;
const CHOOSY: Schools = { ...DEFAULT_SCHOOLS, ovals: 'upper-down' };
const OFTEN_FINE: readonly string[] = ['crossing-too-fast', 'hop-too-fast', 'reverse-crossings'];
/** What only shows where there is little hair, played far below the tempos of the dances. */
const SHORT_BOWS = [20, 24].map((hairCm) => instrumentWith({ hairCm }));
const FAR_BELOW = 0.25;
const OF_THE_HAIR: readonly string[] = ['runs-out-of-hair', 'window-left'];
/** So rare that no demo tune shows it. */
const RARE: readonly string[] = ['jerk', 'string-inferred'];

const found = tunes.flatMap((tune) => reportTune(tune).findings.map((finding) => ({ tune, finding })));
const pressed = tunes.flatMap((tune) =>
  reportTune(tune, { bpm: HARD_PRESSED * wishedTempo(tune), schools: CHOOSY }).findings.map((finding) => ({
    tune,
    finding,
  })),
);
const scant = tunes.flatMap((tune) =>
  SHORT_BOWS.flatMap((instrument) =>
    [FAR_BELOW, 1].flatMap((slowed) =>
      reportTune(tune, { bpm: slowed * wishedTempo(tune), instrument }).findings.map((finding) => ({ tune, finding })),
    ),
  ),
);
const pained = tunes.flatMap((tune) =>
  reportTune(tune, { hand: PAINED }).findings.map((finding) => ({ tune, finding })),
);

test.each(Object.keys(CODES).filter((code) => !RARE.includes(code)))(
  'the demo shows %s, and a mend of it where one can be made',
  (code) => {
    const places = [
      ...found,
      ...pained,
      ...(OFTEN_FINE.includes(code) ? pressed : []),
      ...(OF_THE_HAIR.includes(code) ? scant : []),
    ].filter(({ finding }) => finding.code === code);
    expect(places.length).toBeGreaterThan(0);
    if (!OF_THE_HAND.includes(code)) expect(places.some(({ finding }) => finding.mends.length > 0)).toBe(true);
  },
);

test('every mend offered in the demo keeps what it promises', () => {
  for (const { tune, finding } of found)
    for (const mend of finding.mends) {
      const what = `${tune.title}: ${findingWords(finding).lead} ${mendWords(mend, finding)}`;
      const after = reportTune(mendTune(tune, mend, finding), mend.deed === 'slower' ? { bpm: undefined } : {});
      expect([what, after.figures.ledger.comesRound]).toEqual([what, mend.comesRound]);
      const ceiling = after.figures.check.ceiling?.ceilingBpm ?? null;
      if (mend.ceilingBpm === null || ceiling === null) expect([what, ceiling]).toEqual([what, mend.ceilingBpm]);
      else if (mend.deed !== 'rebar') expect([what, Math.abs(ceiling - mend.ceilingBpm) < 1e-6]).toEqual([what, true]);
    }
});

test('the best mend of each place really takes the finding away, or makes it less', () => {
  const worse: string[] = [];
  for (const { tune, finding } of found) {
    const [mend] = finding.mends;
    if (!mend) continue;
    const after = reportTune(mendTune(tune, mend, finding)).findings;
    const still = after.find(({ code, ids }) => code === finding.code && ids[0] === finding.ids[0]);
    const isLess = !still || JSON.stringify(still) !== JSON.stringify(finding);
    if (!isLess) worse.push(`${tune.title}: ${findingWords(finding).lead} ${mendWords(mend, finding)}`);
  }
  expect(worse).toEqual([]);
});

test('every note of the demo has string, finger and position, or is named as out of reach', () => {
  for (const tune of tunes) {
    const { fingers, findings } = reportTune(tune);
    const named = new Set(findings.flatMap(({ code, ids }) => (code === 'out-of-reach' ? ids : [])));
    for (const { id } of writtenNotes(tune)) {
      const { reachable, finger, position } = fingers.get(id)!;
      if (reachable) expect([tune.title, id, finger !== null && position !== null]).toEqual([tune.title, id, true]);
      else if (reportTune(tune).unrolled.notes.some(({ note }) => note.id === id))
        expect([tune.title, [...named]]).toEqual([tune.title, expect.arrayContaining([id])]);
    }
  }
});

test('in every tuning of the library each demo note sounds as before, or is named as lost', () => {
  for (const tune of tunes)
    for (const { tuning } of TUNINGS) {
      const changed = changeTuning(tune, tuning, FREE_HAND, FULL_SIZE);
      const { fingers } = reportTune(changed.tune);
      const before = reportTune(tune).fingers;
      for (const { id, pitch } of writtenNotes(changed.tune)) {
        const { reachable, place, semitones } = fingers.get(id)!;
        if (reachable) expect(midiOf(tuning[PLACES.indexOf(place)]!) + semitones).toBe(midiOf(pitch));
        else if (before.get(id)!.reachable) expect(changed.lost).toContain(id);
      }
    }
});

test('a pain reported for any finger is in no fingering and no alternative of the demo', () => {
  for (const finger of [1, 2, 3, 4] as const)
    for (const tune of some(tunes, finger)) {
      const hand: Hand = { ...FREE_HAND, bans: [{ finger, place: null, reason: 'pain' }] };
      const { unrolled, fingers, findings } = reportTune(tune, { hand });
      const found = searchFingering(tune, unrolled, hand, FULL_SIZE);
      for (const { id } of writtenNotes(tune)) {
        const result = found.notes.get(id);
        if (!result?.pinBanned)
          for (const { chord } of result?.alternatives ?? [])
            expect(chord.some((stop) => stop.finger === finger)).toBe(false);
        const own = fingers.get(id)!;
        // What is pinned, or cannot be had otherwise, is kept and named.
        if (own.finger === finger) expect(own.goesAgainst).toBe(true);
      }
      // Nor in a second finger beside a note, a doubling, or an ornament.
      const report = reportTune(tune, { hand });
      for (const { index } of unrolled.notes) {
        for (const { stop } of stoppedDoubles(droneSceneOf(report), index)) expect(stop.finger).not.toBe(finger);
        for (const kind of ORNAMENTS)
          if (report.fingers.get(unrolled.notes[index]!.note.id)!.finger !== finger)
            expect(ornamentFacts(ornamentSceneOf(report), index, kind).finger).not.toBe(finger);
      }
      for (const { stop } of doublings(tune, unrolled, fingers, report.timing.durations, hand))
        expect(stop.finger).not.toBe(finger);
      for (const { mends } of findings)
        for (const mend of mends)
          for (const edit of 'notes' in mend ? mend.notes : [])
            if ('refinger' in edit) expect(edit.refinger.finger).not.toBe(finger);
    }
});

test('there is a tune of each common dance, and one in each of two cross-tunings', () => {
  const types = new Set(tunes.map(({ danceType }) => danceType));
  for (const type of DANCE_TYPES)
    if (!['breakdown', 'mazurka', 'schottische'].includes(type)) expect(types).toContain(type);
  const tunings = new Set(
    tunes.map(({ tuning }) => tuning.map(({ letter, octave }) => `${letter}${octave}`).join(' ')),
  );
  expect(tunings).toContain('A3 E4 A4 E5');
  expect(tunings).toContain('G3 D4 G4 D5');
});

test('every demo tune comes back from ABC as it went out', () => {
  for (const tune of tunes) {
    const again = readAbc(writeAbc(tune)).tunes[0]!.tune;
    const plain = (x: typeof tune) =>
      x.parts.flatMap(({ events }) =>
        events.flatMap((event) =>
          event.kind === 'note'
            ? [[event.pitch, event.duration, event.link, event.lock, event.finger, event.stops]]
            : [],
        ),
      );
    expect([tune.title, plain(again)]).toEqual([tune.title, plain(tune)]);
  }
});

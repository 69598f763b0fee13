import { readFileSync, readdirSync } from 'node:fs';
import { type Finding, mendTune, reportTune } from '#core/report';
import { DANCE_TYPES } from '#core/tune';
import { readAbc, writeAbc } from '#formats/abc';
import { findingWords, mendWords } from '#contract/findingWords';

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
  'runs-out-of-hair': true,
  'window-left': true,
  jerk: true,
  'reverse-crossings': true,
  'one-plane': true,
  'skip-may-sound': true,
  'lock-contradicted': true,
  'out-of-reach': true,
  'stops-out-of-reach': true,
  'finger-misfits': true,
  'extended-fourth': true,
  'bar-short': true,
  'bar-long': true,
  'join-does-not-add-up': true,
};
/** What no edit of bowing or bar lines mends. */
const OF_THE_HAND: readonly string[] = ['out-of-reach', 'stops-out-of-reach', 'finger-misfits', 'extended-fourth'];

const found = tunes.flatMap((tune) => reportTune(tune).findings.map((finding) => ({ tune, finding })));

test.each(Object.keys(CODES))('the demo shows %s, and a mend of it where one can be made', (code) => {
  const places = found.filter(({ finding }) => finding.code === code);
  expect(places.length).toBeGreaterThan(0);
  if (!OF_THE_HAND.includes(code)) expect(places.some(({ finding }) => finding.mends.length > 0)).toBe(true);
});

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

test('there is a tune of each common dance, and one in each of two cross-tunings', () => {
  const types = new Set(tunes.map(({ danceType }) => danceType));
  for (const type of DANCE_TYPES) if (type !== 'breakdown' && type !== 'mazurka') expect(types).toContain(type);
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

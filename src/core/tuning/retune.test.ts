import { midiOf, pitchName } from '#core/pitch';
import { PLACES } from '#core/tune';
import { type RetunePlan, retunePlan } from './retune';
import { parseTuning, STANDARD_TUNING, TUNINGS } from './tunings';

function plan(to: string, from = 'G3 D4 A4 E5'): RetunePlan {
  const found = retunePlan(parseTuning(from)!, parseTuning(to)!, undefined, STANDARD_TUNING);
  if (!found.ok) throw new Error(JSON.stringify(found.implausible));
  return found;
}

test('two semitones up raise the tension by 26 %, five down lower it by 44 %', () => {
  const raised = plan('A3 E4 A4 E5').strings[0]!;
  expect(raised.tensionRatio).toBeCloseTo(2 ** (2 / 6), 12);
  expect(raised.newtons.to / raised.newtons.from).toBeCloseTo(1.26, 2);
  expect(plan('D3 D4 A4 E5').strings[0]!.tensionRatio).toBeCloseTo(0.561, 3);
});

test('every tuning of the library can be come to and gone back from, and the last pitches are those wanted', () => {
  for (const { tuning } of TUNINGS)
    for (const { tuning: from } of TUNINGS) {
      const found = retunePlan(from, tuning, undefined, STANDARD_TUNING);
      expect(found.ok).toBe(true);
      if (!found.ok) continue;
      const now = from.map(midiOf);
      for (const { place, from: was, to } of found.steps) {
        expect(midiOf(was)).toBe(now[PLACES.indexOf(place)]);
        now[PLACES.indexOf(place)] = midiOf(to);
      }
      expect(now).toEqual(tuning.map(midiOf));
    }
});

test('what is lowered goes first, what is raised last, then all four once more', () => {
  const steps = plan('A3 D4 A4 D5').steps.map(({ round, place, turn }) => `${round}${place}${turn}`);
  // The strings that stay are pulled along: the second round begins with them.
  expect(steps).toEqual(['1Edown', '1Gup', '2Dcheck', '2Acheck', '2Echeck', '2Gcheck']);
});

test('the tension never stands above where it ends, nor above where it began', () => {
  for (const { tuning } of TUNINGS) {
    const found = retunePlan(STANDARD_TUNING, tuning);
    if (!found.ok) continue;
    const newtons = found.strings.map((string) => string.newtons.from);
    const total = () => newtons.reduce((sum, value) => sum + value, 0);
    const bound = Math.max(total(), total() * found.totalTensionRatio);
    for (const { place } of found.steps) {
      const at = PLACES.indexOf(place);
      newtons[at] = found.strings[at]!.newtons.to;
      expect(total()).toBeLessThanOrEqual(bound + 1e-9);
    }
  }
});

test('a string is matched with one that already stands where it shall, by the surest interval', () => {
  // The G string up to A: an octave below the A string. The D string up to E: an octave below the E string.
  const [g, d] = plan('A3 E4 A4 E5').steps;
  expect(g).toMatchObject({ place: 'G', reference: { place: 'A', interval: 'octave down' } });
  expect(d).toMatchObject({ place: 'D', reference: { place: 'E', interval: 'octave down' } });
  // Down to D: an octave below the D string next to it.
  expect(plan('D3 D4 A4 E5').steps[0]!.reference).toEqual({ place: 'D', interval: 'octave down' });
  for (const { tuning } of TUNINGS)
    for (const { place, to, reference, round } of (retunePlan(STANDARD_TUNING, tuning) as RetunePlan).steps) {
      if (!reference) continue;
      const other = tuning[PLACES.indexOf(reference.place)]!;
      expect([
        pitchName(to),
        place,
        round,
        [0, 7, 5, 4, 3, 9, 8].includes(Math.abs(midiOf(to) - midiOf(other)) % 12),
      ]).toEqual([pitchName(to), place, round, true]);
    }
});

test('a string above a tone and a total that rises by more than an eighth are warned about', () => {
  expect(plan('A3 E4 A4 E5').strings.flatMap(({ warnings }) => warnings)).toEqual([]);
  expect(plan('Bb3 D4 A4 E5').strings[0]!.warnings).toEqual(['above-a-tone']);
  expect(plan('D3 D4 A4 E5').strings[0]!.warnings).toEqual(['very-slack']);
  expect(plan('A3 E4 B4 F#5').totalWarning).toBe(true);
  expect(plan('A3 E4 A4 E5').totalWarning).toBe(false);
});

test('a list read the wrong way round is refused with each string and by how much', () => {
  const wrong = retunePlan(STANDARD_TUNING, parseTuning('E5 A4 E4 A3')!);
  expect(wrong).toMatchObject({
    ok: false,
    implausible: [
      { reason: 'too-high', place: 'G', semitones: 21 },
      { reason: 'too-high', place: 'D', semitones: 7 },
      { reason: 'not-rising', place: 'A' },
      { reason: 'too-low', place: 'E', semitones: -19 },
    ],
  });
});

test('nothing to change needs no step', () => {
  expect(plan('G3 D4 A4 E5').steps).toEqual([]);
});

import { readdirSync, readFileSync } from 'node:fs';
import { DEFAULT_SETTINGS, playerSettings } from '#contract/settings';
import { ORNAMENTS } from '#core/ornaments';
import { midiOf, pitchSpelled, staffStep } from '#core/pitch';
import { reportTune } from '#core/report';
import { PLACES } from '#core/tune';
import { retunePlan, STANDARD_TUNING, type Tuning } from '#core/tuning';
import { readAbc } from '#formats/abc';
import { findingWords } from '#words/finding';
import { ornamentName } from '#words/ornament';
import { toReport } from '#words/reportJson';
import { SAFETY, toRetune } from '#words/retuneJson';
import { some } from '../core/testing/share';
import { seeded } from '../core/testing/tunes';

const WORDS = (['left-hand', 'bowed-triplet'] as const).flatMap((cut) =>
  (['flick', 'cran'] as const).flatMap((flick) =>
    (['pair-first', 'long-first'] as const).map((phases) => ({ cut, flick, phases })),
  ),
);

test('words change no figure of any demo tune, and no figure of a finding', () => {
  const usual = playerSettings(DEFAULT_SETTINGS);
  for (const words of WORDS) expect(playerSettings({ ...DEFAULT_SETTINGS, words })).toEqual(usual);
  for (const file of some(readdirSync('demo')))
    for (const { tune } of readAbc(readFileSync(`demo/${file}`, 'utf8')).tunes) {
      const plain = toReport(reportTune(tune, usual));
      for (const words of WORDS)
        expect(toReport(reportTune(tune, playerSettings({ ...DEFAULT_SETTINGS, words })))).toEqual(plain);
      for (const finding of reportTune(tune).findings) {
        const { figures } = findingWords(finding);
        for (const words of WORDS) expect(findingWords(finding, words).figures).toBe(figures);
      }
    }
});

test('each ornament has one name in each school, and no two share one', () => {
  for (const words of WORDS) {
    const names = ORNAMENTS.map((ornament) => ornamentName(ornament, words));
    expect(new Set(names).size).toBe(names.length);
  }
});

test('every plan that turns a string up, and every other, is told with the safety lines', () => {
  const random = seeded(11);
  let raised = 0;
  for (let tries = 0; tries < 400; tries++) {
    const to = STANDARD_TUNING.map((pitch) => {
      const by = Math.floor(random() * 12) - 7;
      return pitchSpelled(staffStep(pitch), midiOf(pitch) + by);
    }) as unknown as Tuning;
    const plan = retunePlan(STANDARD_TUNING, to);
    if (!plan.ok) continue;
    if (plan.strings.some(({ semitones }) => semitones > 0)) raised += 1;
    const printed = toRetune(plan);
    expect(printed.safety).toEqual(SAFETY);
    for (const [i, { semitones, warnings }] of printed.strings.entries())
      expect([PLACES[i], semitones > 2]).toEqual([PLACES[i], warnings.some((words) => words.includes('may break'))]);
  }
  expect(raised).toBeGreaterThan(20);
});

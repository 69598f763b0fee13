import { createHash } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { DEFAULT_SETTINGS, playerSettings } from '#contract/settings';
import { readAbc } from '#formats/abc';
import { PLAIN_TUNES } from '../../core/testing/plainTunes';
import { randomTune } from '../../core/testing/tunes';
import { countingKey, countTune, RULES_PRINT } from './figures';

const settings = playerSettings(DEFAULT_SETTINGS);

/** Tunes of all dances, in other tunings, with marks of every kind: a rule that changes no figure of theirs changes few. */
function knownTunes() {
  const demo = readdirSync('demo').map((name) => readFileSync(path.join('demo', name), 'utf8'));
  const read = [...demo, PLAIN_TUNES].flatMap((text) => readAbc(text).tunes.map(({ tune }) => tune));
  return [...read, ...Array.from({ length: 40 }, (_, seed) => randomTune(seed))];
}

test('where a rule changes a figure of known tunes, the figures of every book are counted anew', () => {
  const figures = knownTunes().map((tune) => {
    const { ceiling_bpm: ceiling, room, ...counts } = countTune(tune, settings);
    // Machines may differ in the last digits of a tempo.
    return [counts, ceiling?.toFixed(6), room.toFixed(6)];
  });
  const print = createHash('sha256').update(JSON.stringify(figures)).digest('hex').slice(0, 12);
  // Another print: put it into RULES_PRINT.
  expect(RULES_PRINT).toBe(print);
});

test('equal settings give equal keys, whatever the order of their fields; others give others', () => {
  const turned = Object.fromEntries(Object.entries(settings).reverse()) as typeof settings;
  expect(countingKey(turned)).toBe(countingKey(settings));
  expect(countingKey(settings)).toMatch(new RegExp(`^${RULES_PRINT}:`));
  const slower = { ...settings, limits: { ...settings.limits, changesPerSecond: 1 } };
  expect(countingKey(slower)).not.toBe(countingKey(settings));
});

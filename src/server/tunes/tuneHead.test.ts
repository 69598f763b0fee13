import { DEFAULT_SETTINGS, playerSettings } from '#contract/settings';
import { readAbc } from '#formats/abc';
import { tuneHead, WHOLE_TUNE } from './tuneHead';

const settings = playerSettings(DEFAULT_SETTINGS);
const headOf = (abc: string) => tuneHead(readAbc(abc).tunes[0]!.tune, settings);
const REEL = `X:1
T:The Lamp in the Reeds
T:Reed Lamp
C:the boathouse band
S:heard on the jetty
N:slow it down
R:reel
M:4/4
L:1/8
Q:1/2=96
K:Dmix
D2|:dAFA defd|cAEA cdec:|
|:fgaf gfed|1 cdec A2D2:|2 cdec A4|]
`;

test('bars are counted as they are played, without the pickup', () => {
  const { form, bars } = headOf(REEL);
  expect([form, bars]).toEqual(['AABB', 8]);
});

test('titles, composer and what else is said are told apart', () => {
  const head = headOf(REEL);
  expect(head.title).toBe('The Lamp in the Reeds');
  expect(head.other_titles).toEqual(['Reed Lamp']);
  expect(head.composer).toBe('the boathouse band');
  expect(head.said).toBe('slow it down\nheard on the jetty');
});

test('the wish is the tune’s own tempo, or the middle of the band of its dance', () => {
  expect(headOf(REEL).wish_bpm).toBe(96);
  const { wish_bpm: wish } = headOf(REEL.replace('Q:1/2=96\n', ''));
  expect(wish).toBeGreaterThan(96);
  const slower = tuneHead(readAbc(REEL.replace('Q:1/2=96\n', '')).tunes[0]!.tune, {
    bands: { ...settings.bands, own: { ...settings.bands.own, reel: { low: 80, high: 90 } } },
  });
  expect(slower.wish_bpm).toBe(85);
});

test('it begins by steps from its pickup, and from its first full bar', () => {
  const { first_steps: steps, first_bar_steps: fromBar } = headOf(REEL);
  // D | d A F A d e f d: an octave is no step.
  expect(steps.startsWith('0452')).toBe(true);
  expect(fromBar.startsWith('452')).toBe(true);
});

test('the whole melody and each part of it have a print, and nothing else has', () => {
  expect(headOf(REEL).prints.map(({ part }) => part)).toEqual([WHOLE_TUNE, 'A', 'B']);
  const still = headOf('X:1\nT:Still\nM:4/4\nL:1/1\nK:D\nd|d|d|d|\n');
  expect(still.prints).toEqual([]);
});

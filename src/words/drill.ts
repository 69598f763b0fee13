import type { LimitKey } from '#core/tempo';

/** How each drill is played. */
export const DRILL_WORDS: Readonly<Record<Exclude<LimitKey, 'slowestBowCmPerSecond'>, string>> = {
  strokeMs: 'Up and down the A string, a stroke for every note.',
  tripletStrokeMs: 'Three short strokes on the open A, then a plain first finger.',
  crossingMs: 'Open D and open A by turns, a stroke for every note.',
  crossingMsPerDegree: 'Open D and open E by turns, over the A between them. Measure the crossing first.',
  skipMs: 'Open G and open E by turns, over the two between. Measure the crossing and its degrees first.',
  slurCrossingMs: 'Open D and open A by turns, eight to a bow.',
  slurCrossingMsPerDegree: 'Open D and open E by turns, eight to a bow. Measure the crossing in a slur first.',
  slurSkipMs: 'Open G and open E by turns, eight to a bow. Measure the crossing in a slur and its degrees first.',
  hopMs: 'The second finger high on the D and low on the A string by turns: lifted each time.',
  barreMs: 'The first finger on the D and the A string by turns, laid across both.',
  shiftMs: 'The first finger on the E string, from first to third position and back.',
  shiftMsPerMm: 'The first finger on the E string, from first to fifth position and back. Measure the shift first.',
  retakeMs: 'Down-bows on the open D, lifted back for each.',
  cutMs: 'First and second finger on the D string; a cut on every first.',
  flickMs: 'First and second finger on the D string; a flick on every first.',
  shortRollMs: 'A short roll on the first finger, then a plain second.',
  longRollMs: 'A long roll on the first finger, then a plain second.',
  graceMs: 'First finger on the D string with a grace note before it, and the open D.',
  slideMs: 'A slide into the second finger on the D string, and the open D.',
  pulseMs: 'Long notes on open D and A; every D swells and comes back.',
};

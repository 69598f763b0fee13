import { findingAt, type TakeFinding } from './finding';
import { median, quantile } from './measure';
import { distinctPartials, envelopeOf, tracksOf } from './partials';
import type { TakeScene } from './scene';

const STEP = 0.01;
const WINDOW = 0.045;
const INTO = 0.05;
const OUT = 0.035;
const SHORTEST = 0.16;
/** A string is missing when it is so many dB under what it usually is, or under the melody; in more than so many per cent it is no bump, unless it is back at the end, and in more than the most it never is. */
const MISSING = { usual: 12, melody: 24, mostly: 25, most: 50 } as const;
/** Halves of 80 % intervals. */
const UNSURE = { decibels: 1.5, percent: 8 } as const;
/** A dip lasts so many steps, and comes back. */
const DIP_STEPS = 3;

/** The string that sounds along: dropped for part of its time, or bumped by a finger. */
export function secondFindings({ samples, heard, thresholds }: TakeScene): TakeFinding[] {
  const spans = heard.notes.flatMap((one) => {
    const { note } = one;
    const [from, to] = [one.onset + INTO, one.soundsUntil - OUT];
    if (
      !one.heard ||
      one.otherCents !== null ||
      note.secondHertz === null ||
      note.hasGesture ||
      note.marks.length > 0 ||
      to - from < SHORTEST
    )
      return [];
    const partials = distinctPartials(note.secondHertz, [note.hertz]);
    const own = distinctPartials(note.hertz, [note.secondHertz]);
    // Where none of its partials is its own it cannot be told.
    if (partials.length === 0 || own.length === 0) return [];
    const span = { from, to, step: STEP, window: WINDOW };
    const level = envelopeOf(tracksOf(samples, note.secondHertz, partials, span));
    const melody = median(envelopeOf(tracksOf(samples, note.hertz, own, span)));
    return [{ one, level, melody, key: `${note.secondHertz} ${partials.join()}`, from }];
  });
  const usual = new Map<string, number>();
  for (const { key } of spans)
    if (!usual.has(key))
      usual.set(
        key,
        quantile(
          spans.filter((other) => other.key === key).map(({ level }) => quantile(level, 0.7)),
          0.6,
        ),
      );
  return spans.flatMap(({ one, level, melody, key, from }) => {
    const line = Math.max(usual.get(key)! * 10 ** (-MISSING.usual / 20), melody * 10 ** (-MISSING.melody / 20));
    const missing = (100 * level.filter((value) => value < line).length) / level.length;
    const dropped = findingAt('dropped-second', one, { figure: missing, uncertainty: UNSURE.percent }, thresholds);
    // A finger that touches the string for a moment lets go of it again.
    const isBack = missing < MISSING.most && median(level.subarray(-DIP_STEPS)) >= line;
    const isMissing = missing > MISSING.mostly;
    if (!one.note.secondIsOpen || (isMissing && !isBack)) return dropped;
    const steady = quantile(level, 0.75);
    let [deepest, at] = [Infinity, 0];
    for (let i = 2; i + DIP_STEPS + 2 <= level.length; i++) {
      const least = Math.max(...level.subarray(i, i + DIP_STEPS));
      if (least < deepest) [deepest, at] = [least, i];
    }
    const figure = 20 * Math.log10(steady / deepest);
    const bump = { figure, uncertainty: UNSURE.decibels, seconds: from + at * STEP };
    return [...(isMissing ? [] : dropped), ...findingAt('bumped-drone', one, bump, thresholds)];
  });
}

import type { HandOver } from '#core/sets';
import { noteName } from './pitch';
import { listed } from './plural';

/** A change of pace that is worth saying: smaller ones are felt as none. */
const FELT_PACE = 0.05;

/** What it takes to go on to the next tune of a set, as lines; the bow first. */
export function handOverWords({ bow, retuned, pace, isSameKey }: HandOver): readonly string[] {
  const change = Math.round(100 * Math.abs(pace - 1));
  return [
    ...(bow === null
      ? []
      : bow.way === 'on'
        ? [`The bow goes straight on: ${bow.last}, then ${bow.first}.`]
        : [`Lift the bow: the last stroke and the next are both ${bow.last}-bows.`]),
    ...(retuned.length === 0
      ? []
      : [
          `Retune ${listed(retuned.map(({ place, from, to }) => `the ${place} string from ${noteName(from)} to ${noteName(to)}`))}.`,
        ]),
    ...(Math.abs(pace - 1) > FELT_PACE
      ? [`${pace > 1 ? 'Faster' : 'Slower'}: ${change} % ${pace > 1 ? 'more' : 'fewer'} beats a minute.`]
      : []),
    ...(isSameKey ? ['Same key.'] : []),
  ];
}

/** `4 min 20 s`, `50 s`. */
export function lengthWords(seconds: number): string {
  const whole = Math.round(seconds);
  const minutes = Math.floor(whole / 60);
  const rest = whole % 60;
  return [...(minutes > 0 ? [`${minutes} min`] : []), ...(rest > 0 || minutes === 0 ? [`${rest} s`] : [])].join(' ');
}

/** The whole set in one sentence: what is in the way of playing straight through. */
export function setWords(overs: readonly HandOver[]): string {
  if (overs.length === 0) return 'One tune by itself.';
  const before = (met: (over: HandOver) => boolean) => overs.flatMap((over, i) => (met(over) ? [String(i + 2)] : []));
  const retuned = before(({ retuned }) => retuned.length > 0);
  const lifted = before(({ bow }) => bow?.way === 'lift');
  const tunes = (places: readonly string[]) => `${places.length === 1 ? 'tune' : 'tunes'} ${listed(places)}`;
  if (retuned.length === 0 && lifted.length === 0)
    return 'It plays straight through: the bow goes on from tune to tune.';
  return [
    ...(retuned.length > 0 ? [`You have to retune before ${tunes(retuned)}.`] : []),
    ...(lifted.length > 0 ? [`The bow is lifted before ${tunes(lifted)}.`] : []),
  ].join(' ');
}

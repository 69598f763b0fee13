import type { HandChord, HandNote, HopOption } from '#core/fingering';
import { positionWords } from './position';

/** `E:3 in third position`, `A:2 with D:1`. */
export function callWords(chord: HandChord): string {
  const [top] = chord;
  const calls = chord.map(({ place, finger }) => `${place}:${finger}`).join(' with ');
  return top!.finger === 0 || top!.position === 1 ? calls : `${calls} in ${positionWords(top!.position)} position`;
}

/** Where the finger may lean: to a neighbour string that does not sound. */
export function leanWords(lean: NonNullable<HandNote['lean']>): string {
  switch (lean) {
    case 'either':
      return 'It may touch either neighbour string: none of them sounds.';
    case 'lower':
      return 'It may lean to the lower string; the upper one sounds.';
    case 'upper':
      return 'It may lean to the upper string; the lower one sounds.';
    case 'none':
      return 'Both neighbours sound: it must stand clear of them.';
  }
}

const HOPS: Readonly<Record<HopOption['by'], string>> = {
  barre: 'lay it across both',
  hop: 'hop',
  'other-finger': 'another finger',
  prepare: 'set it in the rest',
};

export function hopWords({ by, cost }: HopOption): string {
  return `${HOPS[by]} (${cost} mm)`;
}

/** `3, 2 and 1`. */
export function fingerList(fingers: readonly number[]): string {
  return `${fingers.slice(0, -1).join(', ')} and ${fingers.at(-1)!}`;
}

import type { Due } from '#core/upkeep';

const rangeWords = ([low, high]: readonly [number, number]) => (low === high ? `${low}` : `${low} to ${high}`);

/** What is due, and what to do about it. */
export function dueWords(due: Due): string {
  switch (due.what) {
    case 'string-hours':
      return `The ${due.place} string has ${Math.round(due.hours)} hours: it may sound dull and be false.`;
    case 'string-age':
      return `The ${due.place} string is ${Math.floor(due.months)} months old: no more than a tone up with it.`;
    case 'rehair-hours':
      return `The bow has played ${Math.round(due.hours)} hours since it was rehaired: look whether the hair still grips.`;
    case 'rehair-age':
      return `The bow was rehaired ${Math.floor(due.months)} months ago: look whether the hair still grips.`;
    case 'rosin':
      return `${due.hours.toFixed(1)} hours since the last rosin: a few strokes of it.`;
    case 'gap':
      return `The hair gap is ${due.mm} mm; ${due.bpm === null ? 'you had' : `at about ${Math.round(due.bpm)} you play with`} ${rangeWords(due.usual)}: turn the screw.`;
  }
}

import { findingAt, type TakeFinding } from './finding';
import { median, quantile } from './measure';
import type { TakeScene } from './scene';

/** Pitch of a note that bends or shakes is not judged to the cent. */
const BENDS = new Set<string>([
  'slide',
  'vibrato',
  'vibrato-growing',
  'trill',
  'roll',
  'turn',
  'mordent',
  'passing-triplet',
  'brushed-run',
  'pressed-in',
]);
/** Cents of uncertainty beyond which a pitch is not told. */
const TOO_UNSURE = 20;
/** The shake of a finger is looked at after so long, through a window that flattens it so much. */
const VIBRATO = { from: 0.3, shown: 0.86, cents: 5 } as const;

/** Notes sharp, flat, or another note altogether; and vibrato that is not there. */
export function pitchFindings({ heard, thresholds }: TakeScene): TakeFinding[] {
  return heard.notes.flatMap((one) => {
    const { note, pitch, otherCents, cents, centsUncertainty } = one;
    if (!one.heard) return [];
    if (otherCents !== null)
      return findingAt('wrong-note', one, { figure: Math.abs(otherCents), uncertainty: 30 }, thresholds);
    if (pitch !== null && pitch.isShared) return [];
    if (note.marks.some((mark) => mark.startsWith('vibrato'))) return vibratoFindings();
    if (centsUncertainty > TOO_UNSURE || note.marks.some((mark) => BENDS.has(mark))) return [];
    const figure = { figure: Math.abs(cents), uncertainty: centsUncertainty };
    return findingAt(cents > 0 ? 'sharp' : 'flat', one, figure, thresholds);

    function vibratoFindings(): TakeFinding[] {
      const late = note.marks.includes('vibrato-growing') ? 0.5 : 0.3;
      const from = one.onset + Math.max(VIBRATO.from, late * (one.end - one.onset));
      const curve = pitch?.curve.filter(({ time }) => time >= from) ?? [];
      if (curve.length < 15) return [];
      const values = curve.map((point) => point.cents);
      // Without the slow wander of the finger.
      const steady = values.map((value, i) => value - median(values.slice(Math.max(0, i - 10), i + 11)));
      const figure = (quantile(steady, 0.9) - quantile(steady, 0.1)) / VIBRATO.shown;
      return findingAt('narrow-vibrato', one, { figure, uncertainty: VIBRATO.cents }, thresholds);
    }
  });
}

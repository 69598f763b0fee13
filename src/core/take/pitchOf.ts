import { type Seconds, weightedQuantiles } from '#core/base';
import { distinctPartials, ownPartials, pitchCurve, type PitchPoint, tracksOf } from './partials';

const STEP: Seconds = 0.01;
const WINDOW: Seconds = 0.04;
/** What of a note is not looked at for its pitch: seconds at most, and shares. */
const INTO = { max: 0.045, share: 0.25 } as const;
const OUT = { max: 0.02, share: 0.12 } as const;
/** Half of an 80 % interval: the spread over the note, for its length, and at least this. */
const SPREAD = 1.1;
const LEAST_CENTS = 0.42;
/** Every partial of it is another string's as well. */
const SHARED_CENTS = 25;

export interface NotePitch {
  /** From the pitch looked for. */
  readonly cents: number;
  readonly uncertainty: number;
  /** None of its partials is its own: it is hardly told from the other string. */
  readonly isShared: boolean;
  readonly curve: readonly PitchPoint[];
}

/** The pitch of a note near a frequency: the weighed median over its middle. Others that sound with it are kept apart. */
export function pitchNear(
  samples: Float32Array,
  hertz: number,
  others: readonly number[],
  note: { readonly from: Seconds; readonly to: Seconds },
): NotePitch | null {
  const length = note.to - note.from;
  const from = note.from + Math.min(INTO.max, INTO.share * length);
  const to = note.to - Math.min(OUT.max, OUT.share * length);
  if (to - from < STEP) return null;
  const isShared = distinctPartials(hertz, others).length === 0;
  const tracks = tracksOf(samples, hertz, ownPartials(hertz, others), { from, to, step: STEP, window: WINDOW });
  const curve = pitchCurve(tracks);
  if (curve.length === 0) return null;
  const weights = curve.map(({ weight }) => weight);
  const cents = curve.map((point) => point.cents);
  const [low, middle, high] = weightedQuantiles(cents, weights, [0.2, 0.5, 0.8]) as [number, number, number];
  // Windows overlap: so many of them are independent.
  const independent = Math.max(1, (curve.length * STEP) / WINDOW);
  const uncertainty = Math.max(LEAST_CENTS, (SPREAD * (high - low)) / 1.68 / Math.sqrt(independent));
  return { cents: middle, uncertainty: isShared ? Math.max(SHARED_CENTS, uncertainty) : uncertainty, isShared, curve };
}

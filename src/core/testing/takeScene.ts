import { DEFAULT_THRESHOLDS, type Expected, type Heard } from '#core/take';
import { paceOf, type TakeScene } from '../take/scene';

/** A scene of what was heard, with samples where they matter. */
export function sceneOf(
  { expected, heard }: { readonly expected: Expected; readonly heard: Heard },
  more: Partial<TakeScene> = {},
): TakeScene {
  return {
    samples: new Float32Array(0),
    levels: [],
    expected,
    heard,
    thresholds: DEFAULT_THRESHOLDS,
    reference: null,
    pace: paceOf(heard.notes),
    bites: { strokes: [], times: [] },
    tones: { low: [], others: NaN },
    ...more,
  };
}

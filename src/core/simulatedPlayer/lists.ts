import type { Seconds } from '#core/base';
import type { Playing } from '#core/performance';
import type { Step } from './steps';

/** Where the notes of steps begin and end in the take. */
export interface StepTime {
  readonly step: Step;
  readonly from: Seconds;
  /** Where it stops sounding, and where the next one begins. */
  readonly to: Seconds;
  readonly next: Seconds;
}

/** A playing whose lists may be changed. */
export type Lists = {
  -readonly [K in keyof Playing]: Playing[K] extends readonly (readonly (infer T)[])[]
    ? T[][]
    : Playing[K] extends readonly (infer T)[]
      ? T[]
      : never;
};

import type { TuneReport } from '#core/report';
import type { Tune } from '#core/tune';
import { writtenKey, writtenPitch } from './pitch';
import { counted } from './plural';

/** `reel · D major · G3 D4 A4 E5`. */
export function headWords({ danceType, key, tuning }: Tune): string {
  return [danceType ?? 'no dance type', writtenKey(key), tuning.map(writtenPitch).join(' ')].join(' · ');
}

/** `AABB, 32 bars`. */
export function formWords({ tune, bars }: TuneReport): string {
  const form = tune.form.every((name) => name.length === 1) ? tune.form.join('') : tune.form.join(' ');
  return `${form}, ${counted(bars, 'bar')}`;
}

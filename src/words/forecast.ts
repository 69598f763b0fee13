import { type Forecast, MIN_DAYS } from '#core/forecast';
import { counted } from './plural';

interface Asked {
  readonly bpm: number;
  readonly minutesADay: number;
}

/** `about 11 days of 20 minutes (6 to 24)`. */
function daysWords({ p10, p50, p90 }: { p10: number; p50: number; p90: number }, minutesADay: number): string {
  const [early, middle, late] = [p10, p50, p90].map((days) => Math.max(1, Math.ceil(days))) as [number, number, number];
  const range = early === late ? '' : ` (${early} to ${late})`;
  return `about ${counted(middle, 'day')} of ${counted(minutesADay, 'minute')}${range}`;
}

/** `8 times in 10`, `4 times in 100`. */
function timesWords(share: number): string {
  if (share >= 0.095) return `${Math.min(9, Math.round(10 * share))} times in 10`;
  return `${Math.max(1, Math.round(100 * share))} times in 100`;
}

/** When a tempo will be clean, as it is said: with its range, or why nothing is said. */
export function forecastWords(forecast: Forecast, { bpm, minutesADay }: Asked): string {
  const goal = Math.round(bpm);
  if ('tooLittle' in forecast)
    return forecast.tooLittle === 'few-days'
      ? `Too little to say when ${goal} will be clean: it takes ${MIN_DAYS} days on which something came out clean, and there ${forecast.days === 1 ? 'is 1' : `are ${forecast.days}`}.`
      : `Too little to say when ${goal} will be clean: the days so far fit a short way and a very long one.`;
  const { days, never } = forecast;
  if (!Number.isFinite(days.p50) || never >= 0.9) return `${goal} is not on this path: you level off below it.`;
  if (never >= 0.5)
    return `${goal} is not on this path ${timesWords(never)}; else it takes ${daysWords(days, minutesADay)}.`;
  if (days.p90 === 0) return `${goal} comes out clean already.`;
  const missed = never >= 0.01 ? `; ${timesWords(never)} it is not on this path` : '';
  return `${goal} in ${daysWords(days, minutesADay)}${missed}.`;
}

/** The same of a whole tune, whose bites each need their days. */
export function tuneForecastWords(forecast: Forecast, asked: Asked): string {
  return 'tooLittle' in forecast && forecast.tooLittle === 'few-days'
    ? `Too little to say when the whole tune will be clean at ${Math.round(asked.bpm)}: every bite of it takes ${MIN_DAYS} days on which it came out clean.`
    : forecastWords(forecast, asked);
}

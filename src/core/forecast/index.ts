// When a tempo will be clean, of what the log has.
export type { BestOfDay, FanDay, Forecast, ForecastWish, TooLittle } from './forecast';
export { forecastFan, forecastOf, MIN_DAYS } from './forecast';
// When a whole tune will be.
export type { ForecastStretch } from './forecastTune';
export { forecastTune } from './forecastTune';

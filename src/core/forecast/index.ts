// When a tempo will be clean, of what the log has.
export type { BestOfDay, Forecast, ForecastWish, TooLittle } from './forecast';
export { forecastOf } from './forecast';

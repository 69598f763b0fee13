// Lists as comma-separated values.
export { writeCsv } from './writeCsv';

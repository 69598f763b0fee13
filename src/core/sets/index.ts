export type { BowThrough } from './bowThrough';
export { bowThrough } from './bowThrough';
export type { HandOver } from './handOver';
export { handOver } from './handOver';

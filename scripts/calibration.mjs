// How far the intervals of ability, own ceiling and forecast hold, by simulation; `npm run test:deep` prints it.
import { calibrationTable, PLAYERS } from './bench/calibration.mjs';

console.log(`80 % intervals of ${PLAYERS} simulated players a model:\n${calibrationTable().join('\n')}`);

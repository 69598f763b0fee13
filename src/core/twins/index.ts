// Figures that come again.
export type { TwinFigure } from './twins';
export { LEAST_FIGURE, likeTwin, twinFigures } from './twins';

// Figures that come again.
export type { TwinFigure } from './twins';
export { LEAST_FIGURE, bowAlike, playingShare, twinFigures } from './twins';

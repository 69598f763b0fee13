// What can go wrong, and from where on it is told.
export {
  DEFAULT_THRESHOLDS,
  type FigureUnit,
  MISTAKE_KINDS,
  type MistakeKind,
  type Threshold,
  type Thresholds,
} from './mistakes';

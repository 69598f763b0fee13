import type { PlayerSettings } from '#core/report';
import type { Tune } from '#core/tune';

export interface JudgeWorker {
  /** Ends when the tune was judged. */
  readonly judge: (tune: Tune, settings: PlayerSettings) => Promise<void>;
}

import type { ReportOptions } from '#core/report';
import type { Gain, Standing } from '#core/standing';
import type { Tune } from '#core/tune';

/** What is asked about a tune. */
export interface DanceRequest {
  readonly tune: Tune;
  readonly options: ReportOptions;
}

/** What the worker of the dance check does. */
export interface DanceWorker {
  /** What each change at the tightest places buys. */
  gains(request: DanceRequest, places: number): Promise<readonly Gain[]>;
  /** The fewest changes that let it stand; tells how many reports were counted. */
  stand(request: DanceRequest, bpm: number, onTrial: (tried: number) => void): Promise<Standing>;
}

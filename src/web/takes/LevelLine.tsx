/** Levels that the line shows, dB of full scale. */
const RANGE = { quiet: -70, loud: 0 } as const;
/** From here on it is about to be cut off. */
const TOO_LOUD = -3;

interface LevelLineProps {
  /** dB of full scale. */
  readonly level: number;
  /** How long it has been recorded; left out where that is told elsewhere. */
  readonly seconds?: number;
  readonly isSilent?: boolean;
}

/** How loud it comes in, as a quiet line, and how long it has been recorded. */
export function LevelLine({ level, seconds, isSilent = false }: LevelLineProps) {
  const share = Math.max(0, Math.min(1, (level - RANGE.quiet) / (RANGE.loud - RANGE.quiet)));
  return (
    <div className="flex flex-col gap-1">
      <div
        role="meter"
        aria-label="Level"
        aria-valuenow={Math.round(level)}
        aria-valuemin={RANGE.quiet}
        aria-valuemax={RANGE.loud}
        aria-valuetext={`${Math.round(level)} dB`}
        className="h-1 overflow-hidden rounded bg-band"
      >
        <div className={`h-full ${level > TOO_LOUD ? 'bg-madder' : 'bg-soft'}`} style={{ width: `${100 * share}%` }} />
      </div>
      <p className="text-small text-muted tabular-nums">
        {seconds !== undefined && `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`}
        {isSilent && (
          <b role="status" className="ml-3 font-medium text-weld-ink">
            Nothing comes in: is it the right input, and not muted?
          </b>
        )}
        {level > TOO_LOUD && <b className="ml-3 font-medium text-madder">too loud</b>}
      </p>
    </div>
  );
}

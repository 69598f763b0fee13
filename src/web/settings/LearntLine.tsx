import { type KindAbility, learntLimit, LIMITS_OF } from '#core/ability';
import { EVENT_KINDS, type EventKind, type LimitKey, type Limits } from '#core/tempo';
import { isTold } from '#words/ability';
import { kindWords } from '#words/eventKind';
import { counted } from '#words/plural';
import { Button } from '../ui/Button';

/** The kind of event that is held against a limit first. */
export function kindOfLimit(key: LimitKey): EventKind | null {
  return EVENT_KINDS.find((kind) => LIMITS_OF[kind][0] === key) ?? null;
}

/** Closer than this, as a share, a learnt limit says what holds already. */
const SAME = 0.01;

interface LearntLineProps {
  readonly kind: EventKind;
  readonly ability: KindAbility;
  readonly limits: Limits;
  readonly onTake: () => void;
}

/** What the log says a limit is, beside the one in use: it is used only when the player takes it. */
export function LearntLine({ kind, ability, limits, onTake }: LearntLineProps) {
  const { mean, low, high, attempts } = ability;
  const [first, ...others] = LIMITS_OF[kind];
  const { value, source } = limits[first];
  const ms = (better: number) => Math.round(learntLimit(kind, better, limits));
  const isSame = Math.abs(learntLimit(kind, mean, limits) / value - 1) < SAME;
  return (
    <p className="mb-1 flex flex-wrap items-baseline gap-x-3 pl-4 text-small text-muted" data-learnt={kind}>
      {isTold(ability) ? (
        <>
          <span>
            your log says <b className="text-ink">{ms(mean)} ms</b> ({ms(high)} to {ms(low)}), from{' '}
            {counted(attempts, 'attempt')}
            {others.length > 0 && `; the other figures of ${kindWords(kind)} go with it`}
          </span>
          {isSame ? (
            <span className="text-lichen-ink">as it is</span>
          ) : (
            <Button look="small" aria-label={`Take ${ms(mean)} ms for ${kindWords(kind)}`} onClick={onTake}>
              {source === 'measured' ? 'take it instead of what you measured' : 'take it'}
            </Button>
          )}
        </>
      ) : (
        <span>
          your log does not say it yet: of {counted(attempts, 'attempt')} with {kindWords(kind)} too few were at the
          edge
        </span>
      )}
    </p>
  );
}

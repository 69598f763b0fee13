import { AS_PLANNED, hasHolds, learntFactors } from '#core/tempo';
import type { Tune } from '#core/tune';
import { failureWords } from '#words/failure';
import { percentWords } from '#words/plural';
import type { Failure } from '../api/answer';
import { useSaveSettingsMutation } from '../api/settingsApi';
import { selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import type { KeptTake } from './keptTakes';

/** Factors nearer than this are the same. */
const SAME = 0.03;

/** What the player makes of holds and silences, put into what is played to them: they come out short with most. */
export function OwnFactorsLine({ take, tune }: { readonly take: KeptTake; readonly tune: Tune }) {
  const { settings } = useAppSelector(selectSettings);
  const [save, { isLoading, error }] = useSaveSettingsMutation();
  const { holdFactor, silenceFactor } = take.result.figures;
  if (!hasHolds(tune)) return null;
  const { listening } = settings;
  const learnt = learntFactors(take.own ?? AS_PLANNED, { hold: holdFactor, silence: silenceFactor });
  const isNew =
    Math.abs(learnt.hold - listening.own.hold) > SAME || Math.abs(learnt.silence - listening.own.silence) > SAME;
  const isOwn = listening.own.hold !== 1 || listening.own.silence !== 1;
  if (!isNew && !isOwn) return null;
  const keep = (own: typeof learnt) =>
    void save({ before: settings, next: { ...settings, listening: { ...listening, own } } });
  return (
    <div className="mb-2 text-small">
      {isOwn && (
        <p className="text-muted">
          You hear holds at {percentWords(1 / listening.own.hold)} and breaths at{' '}
          {percentWords(1 / listening.own.silence)} of what is written, to make up for how yours come out.
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {isNew && (
          <Button look="small" disabled={isLoading} onClick={() => keep(learnt)}>
            Play me holds at {percentWords(1 / learnt.hold)}, breaths at {percentWords(1 / learnt.silence)}
          </Button>
        )}
        {isOwn && (
          <Button look="small" disabled={isLoading} onClick={() => keep(AS_PLANNED)}>
            As written again
          </Button>
        )}
      </div>
      {error !== undefined && <Alert>That was not saved. {failureWords(error as Failure)}</Alert>}
    </div>
  );
}

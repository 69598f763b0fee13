import { useState } from 'react';
import type { TuneReport } from '#core/report';
import { hasDottedBeats, type Lilt, liltLeft, LILTS } from '#core/tempo';
import { failureWords } from '#words/failure';
import type { Failure } from '../api/answer';
import { useSaveSettingsMutation } from '../api/settingsApi';
import { selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';
import { OwnLiltSheet } from './OwnLiltSheet';

interface LiltChoiceProps {
  readonly report: TuneReport;
  readonly onLilt: (lilt: string | undefined) => void;
}

/** The tune's lilt, with the shares of its notes at this tempo; own templates beside those that come along. */
export function LiltChoice({ report, onLilt }: LiltChoiceProps) {
  const { tune } = report;
  const { lilt, lilts } = report.settings;
  const { settings } = useAppSelector(selectSettings);
  const [save, { error }] = useSaveSettingsMutation();
  const [sheet, setSheet] = useState<'new' | 'change' | null>(null);
  const own = lilts.find(({ name }) => name === lilt.name) ?? null;
  const isUnknown = tune.lilt !== undefined && tune.lilt !== lilt.name;
  const keep = async (next: readonly Lilt[], chosen: string | undefined) => {
    const answer = await save({
      before: settings,
      next: { ...settings, lilts: next as typeof settings.lilts },
    });
    if (!answer.data) return;
    setSheet(null);
    onLilt(chosen);
  };
  return (
    <div className="flex flex-col gap-1.5">
      <div className="flex flex-wrap items-center gap-2">
        <label className="flex items-center gap-2">
          lilt
          <Select
            label="lilt"
            value={lilt.name}
            options={[...LILTS, ...lilts].map(({ name }) => name)}
            onChange={(name) => onLilt(name === 'straight' ? undefined : name)}
          />
        </label>
        <Button look="small" onClick={() => setSheet('new')}>
          one of your own …
        </Button>
        {own && (
          <Button look="small" onClick={() => setSheet('change')}>
            change “{own.name}” …
          </Button>
        )}
      </div>
      {isUnknown && (
        <p role="alert" className="text-small text-weld-ink">
          The tune asks for a lilt called “{tune.lilt}”, which is not among yours: it is counted straight.
        </p>
      )}
      {error !== undefined && <Alert look="small">The lilt was not saved. {failureWords(error as Failure)}</Alert>}
      <p className="text-small text-muted">{liltWords(report)}</p>
      {lilt.name !== 'straight' && (
        <Button look="link" className="self-start" onClick={() => onLilt(undefined)}>
          play it straight
        </Button>
      )}
      {sheet && (
        <OwnLiltSheet
          lilt={sheet === 'change' ? own : null}
          taken={lilts.map(({ name }) => name)}
          onKeep={(made) => void keep([...lilts.filter(({ name }) => name !== made.name), made], made.name)}
          onRemove={
            sheet === 'change' && own
              ? () =>
                  void keep(
                    lilts.filter(({ name }) => name !== own.name),
                    undefined,
                  )
              : null
          }
          onClose={() => setSheet(null)}
        />
      )}
    </div>
  );
}

/** `The even notes of a beat last 57, 43 % of it at this tempo; full up to 110, flatter beyond.` */
function liltWords({ settings, tune, timing }: TuneReport): string {
  const { lilt, bpm, beat } = settings;
  if (timing.atAnyTempo.isFree) return 'This tune is played freely, by its holds, breaths and paces: no lilt.';
  const isThree = hasDottedBeats(tune.meter, beat);
  const shares = isThree ? lilt.compound : lilt.simple;
  if (!shares) return 'Notes that are written even last even.';
  const beats = isThree ? 'dotted quarters' : 'quarters';
  const liltedBpm = (bpm * beat.n) / beat.d / (isThree ? 3 / 8 : 1 / 4);
  const left = liltLeft(lilt, liltedBpm);
  const now = shares.map((share) => Math.round(100 * (1 / shares.length + (share - 1 / shares.length) * left)));
  return `The even notes of a beat last ${now.join(', ')} % of it at this tempo. The lilt is full up to ${lilt.fullTo} ${beats} a minute and flattens beyond.`;
}

import { useState } from 'react';
import type { Pain } from '#contract/log';
import type { StoredSettings } from '#contract/settings';
import type { Stretch } from '#core/practice';
import type { TuneReport } from '#core/report';
import { type Place, PLACES } from '#core/tune';
import { failureWords } from '#words/failure';
import type { Failure } from '../api/answer';
import { useSaveSettingsMutation } from '../api/settingsApi';
import { selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { Alert } from '../ui/Alert';
import { Button } from '../ui/Button';
import { Select } from '../ui/Select';
import { Sheet } from '../ui/Sheet';

type Finger = 1 | 2 | 3 | 4;
const FINGERS = [
  { value: 0, name: 'not one finger' },
  ...([1, 2, 3, 4] as const).map((finger) => ({
    value: finger as number,
    name: `${['first', 'second', 'third', 'fourth'][finger - 1]} finger`,
  })),
];

interface PainSheetProps {
  readonly report: TuneReport;
  readonly stretch: Stretch;
  readonly onClose: () => void;
  readonly onHurts: (pain: Pain) => void;
}

/** Something hurts: the block ends, and where a finger is named it is kept out until the player says otherwise. */
export function PainSheet({ report, stretch, onClose, onHurts }: PainSheetProps) {
  const { settings } = useAppSelector(selectSettings);
  const [save, { error }] = useSaveSettingsMutation();
  const used = fingersIn(report, stretch);
  const [finger, setFinger] = useState<number>(0);
  const [place, setPlace] = useState<Place | ''>('');
  const stop = async () => {
    if (finger > 0) {
      const ban = { finger: finger as Finger, place: place === '' ? null : place, reason: 'pain' as const };
      const next: StoredSettings = { ...settings, hand: { ...settings.hand, bans: [...settings.hand.bans, ban] } };
      const answer = await save({ before: settings, next });
      if (answer.error) return;
    }
    onHurts({ finger: finger === 0 ? null : finger, place: place === '' ? null : place });
  };
  return (
    <Sheet open onOpenChange={onClose} title="This hurts" description="Then this block is over.">
      <div className="flex flex-col gap-4">
        <p>
          Rest first. Pain is a sign to stop; if it stays or comes back, show it to a teacher or a doctor. What you were
          playing rests until you take it up again. If it is one finger, it is kept out of every tune until you let it
          back in under Settings: the tune is fingered around it, and no tempo climbs meanwhile.
        </p>
        <div className="flex flex-wrap gap-4">
          <label className="flex items-center gap-2">
            where
            <Select
              value={finger}
              options={FINGERS.filter(({ value }) => value === 0 || used.has(value) || value === 4)}
              onChange={setFinger}
            />
          </label>
          {finger > 0 && (
            <label className="flex items-center gap-2">
              on
              <Select
                value={place}
                options={[
                  { value: '', name: 'every string' },
                  ...PLACES.map((one) => ({ value: one, name: `the ${one} string` })),
                ]}
                onChange={setPlace}
              />
            </label>
          )}
        </div>
        {error !== undefined && <Alert>Not saved. {failureWords(error as Failure)}</Alert>}
        <div className="flex justify-end gap-2">
          <Button onClick={onClose}>Go on playing</Button>
          <Button look="main" onClick={() => void stop()}>
            Stop here
          </Button>
        </div>
      </div>
    </Sheet>
  );
}

/** Fingers that the stretch needs. */
function fingersIn({ unrolled, fingers }: TuneReport, { first, last }: Stretch): ReadonlySet<number> {
  return new Set(unrolled.notes.slice(first, last + 1).flatMap(({ note }) => fingers.get(note.id)?.finger ?? []));
}

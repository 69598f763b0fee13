import { useMemo } from 'react';
import type { TuneReport } from '#core/report';
import { type Followed, PlayMark } from '../player/PlayMark';
import { useShownTake } from './shownTake';
import { noteAt } from './takeMarks';

interface TakePlayMarkProps {
  readonly tuneId: string;
  readonly report: TuneReport;
  readonly onPass: (part: string, pass: number) => void;
}

/** While a take is heard, the mark goes through the plan as the player did. */
export function TakePlayMark({ tuneId, report, onPass }: TakePlayMarkProps) {
  const { take, playing } = useShownTake(tuneId);
  const player = useMemo(
    (): Followed => ({
      sounds: playing ? report : null,
      where: () => {
        const at = take && playing ? noteAt(take, playing.time()) : null;
        return at && { index: at.index, share: at.share };
      },
    }),
    [take, playing, report],
  );
  if (!playing) return null;
  return <PlayMark player={player} state={{ status: 'playing' }} onPass={onPass} />;
}

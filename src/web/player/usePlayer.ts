import { useCallback, useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import type { TuneReport } from '#core/report';
import { selectSettings } from '../store/selectSettings';
import { useAppSelector } from '../store/store';
import { type ListenSettings, type PlaySettings, readListenSettings, writeListenSettings } from './listenSettings';
import { Player, type PlayerState } from './player';
import { PRACTICE, readPractice, writePractice } from './practiceTempo';
import type { Span } from './span';

export interface Listening {
  readonly player: Player;
  readonly state: PlayerState;
  readonly settings: ListenSettings;
  readonly setSettings: (settings: ListenSettings) => void;
  /** How fast it is heard, in percent of the tempo wanted. */
  readonly practice: number;
  readonly setPractice: (percent: number) => void;
  /** Plays a span, or stops. */
  readonly toggle: (span: Span | null) => void;
}

interface PlayerOptions {
  /** The tune whose practice tempo is remembered; without one it is heard at the tempo wanted. */
  readonly tuneId?: string;
  /** How it is listened to here, where the listener has no say in it. */
  readonly fixed?: ListenSettings;
}

/** A player of this report for as long as the page is open; edits are heard while it plays. */
export function usePlayer(report: TuneReport, { tuneId, fixed }: PlayerOptions = {}): Listening {
  const [player] = useState(() => new Player());
  const [chosen, keepSettings] = useState(readListenSettings);
  const [practice, keepPractice] = useState(() => (tuneId === undefined ? PRACTICE.goal : readPractice(tuneId)));
  const settings = fixed ?? chosen;
  const { a4, own } = useAppSelector(selectSettings).settings.listening;
  const played = useMemo((): PlaySettings => ({ ...settings, a4, own }), [settings, a4, own]);
  const state = useSyncExternalStore(player.subscribe, player.snapshot);
  useEffect(() => player.update(report, played, practice), [player, report, played, practice]);
  useEffect(() => () => player.close(), [player]);
  const setSettings = useCallback((next: ListenSettings) => {
    writeListenSettings(next);
    keepSettings(next);
  }, []);
  const setPractice = useCallback(
    (percent: number) => {
      if (tuneId !== undefined) writePractice(tuneId, percent);
      keepPractice(percent);
    },
    [tuneId],
  );
  const toggle = useCallback(
    (span: Span | null) => {
      if (player.snapshot().status === 'idle') void player.play(report, played, span, practice);
      else player.stop();
    },
    [player, report, played, practice],
  );
  return { player, state, settings, setSettings, practice, setPractice, toggle };
}

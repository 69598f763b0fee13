import { useCallback, useEffect, useState, useSyncExternalStore } from 'react';
import type { TuneReport } from '#core/report';
import { type ListenSettings, readListenSettings, writeListenSettings } from './listenSettings';
import { Player, type PlayerState, type Span } from './player';

export interface Listening {
  readonly player: Player;
  readonly state: PlayerState;
  readonly settings: ListenSettings;
  readonly setSettings: (settings: ListenSettings) => void;
  /** Plays a span, or stops. */
  readonly toggle: (span: Span | null) => void;
}

/**
 * A player of this report for as long as the page is open; edits are heard while it plays.
 * @param fixed how it is listened to here, where the listener has no say in it
 */
export function usePlayer(report: TuneReport, fixed?: ListenSettings): Listening {
  const [player] = useState(() => new Player());
  const [chosen, keepSettings] = useState(readListenSettings);
  const settings = fixed ?? chosen;
  const state = useSyncExternalStore(player.subscribe, player.snapshot);
  useEffect(() => player.update(report, settings), [player, report, settings]);
  useEffect(() => () => player.close(), [player]);
  const setSettings = useCallback((next: ListenSettings) => {
    writeListenSettings(next);
    keepSettings(next);
  }, []);
  const toggle = useCallback(
    (span: Span | null) => {
      if (player.snapshot().status === 'idle') void player.play(report, settings, span);
      else player.stop();
    },
    [player, report, settings],
  );
  return { player, state, settings, setSettings, toggle };
}
